import fc from 'fast-check';
import * as sequelize from 'sequelize';
import { HOUR, forecast, type ProgramDocument } from '@/core';
import { runs } from '@/core/tests/runs';
import { rows } from '@/database';
import { processUpload } from '../library';
import type { Actor } from '../people';
import type * as Plans from '../plan';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { picture, send } from '../tests/files';
import type * as Editions from '.';

useDatabase();
jest.setTimeout(240_000);

/**
 * All ways to the glass in any order, by two web processes at once, against a model of what each screen should show. The table in
 * docs/architecture.md says what must happen for each pair.
 */

/** Two copies of the services, as two web processes have them: each remembers its own plans and editions. */
type Web = typeof Editions & Pick<typeof Plans, 'draftPlan' | 'edit' | 'importPlan' | 'lastChange'>;
const webs: Web[] = [];
beforeAll(async () => {
  for (let i = 0; i < 2; i++)
    await jest.isolateModulesAsync(async () => {
      // The line to the database is one.
      jest.doMock('sequelize', () => sequelize);
      const [editions, { draftPlan, edit, importPlan, lastChange }] = [await import('.'), await import('../plan')];
      webs.push({ ...editions, draftPlan, edit, importPlan, lastChange });
    });
});

const PICTURES = ['one', 'two', 'three'];

/** A network whose screens show the first picture, with a takeover that is prepared. */
async function network(web: Web): Promise<Actor> {
  const actor = await newNetwork();
  await newPlan(actor);
  for (const [i, name] of [...PICTURES, 'put', 'gale'].entries()) {
    const received = await send(actor, `${name}.jpg`, await picture(20 + i, 10));
    if ('upload' in received) await processUpload(received.upload.id);
  }
  const created = '2026-01-01T00:00:00Z';
  await web.edit(actor, [
    {
      ...{ kind: 'booking', id: 'base' },
      add: { name: 'Base', content: { media: 'one' }, where: 'all', priority: 3, created, when: {} },
    },
    {
      ...{ kind: 'booking', id: 'gale' },
      add: {
        ...{ name: 'Gale', content: { media: 'gale' }, where: 'all', priority: 5, takeover: true, onHold: true },
        ...{ created, when: {} },
      },
    },
  ]);
  await web.publishEdition(actor, await web.lastChange(actor.networkId));
  return actor;
}

/** What each screen is given to show now, by the database alone. */
async function glass(web: Web, actor: Actor): Promise<Record<string, string | undefined>> {
  const given = await web.deliveredPrograms(actor.networkId);
  const shown: Record<string, string | undefined> = {};
  for (const [screen, hash] of given) {
    const [row] = await rows<{ document: string }>('SELECT document FROM program_documents WHERE hash = $1', [hash]);
    const program = JSON.parse(row?.document ?? '{}') as ProgramDocument;
    // What is ended has its last second.
    const now = Date.now() + 2000;
    shown[screen] = forecast(program, now, now + 1000, { plays: true }).plays[0]?.media;
  }
  return shown;
}

/** What should be: the picture of the draft, of each edition by its number, and of those that are planned; and what is on by hand. */
interface Model {
  draft: string;
  readonly editions: Map<number, string>;
  planned: string[];
  putOn: string | null;
  inForce: boolean;
}

const newest = ({ editions }: Model) => Math.max(...editions.keys());
const top = (model: Model) => model.planned.at(-1) ?? model.editions.get(newest(model));

const refusedWith = async (status: number, work: Promise<unknown>): Promise<boolean> =>
  work.then(
    () => false,
    (error: { status?: number }) => {
      if (error.status !== status) throw error;
      return true;
    },
  );

type Way = (web: Web, actor: Actor, model: Model, pick: number) => Promise<void>;

const out = (model: Model, picture_: string) => void model.editions.set(newest(model) + 1, picture_);
/** What is done by hand makes an edition of its own, which holds what the one before it does. */
const aside = (model: Model) => out(model, model.editions.get(newest(model)) ?? '');

const WAYS: Record<string, Way> = {
  async edit(web, actor, model, pick) {
    model.draft = PICTURES[pick % 3] ?? '';
    await web.edit(actor, [{ kind: 'booking', id: 'base', set: { content: { media: model.draft } } }]);
  },
  async import(web, actor, model, pick) {
    const { planFile } = await import('@/core');
    model.draft = PICTURES[pick % 3] ?? '';
    const { plan } = await web.draftPlan(actor);
    const bookings = plan.bookings.map((one) =>
      one.id === 'base' ? { ...one, content: { media: model.draft } } : one,
    );
    await web.importPlan(actor, planFile({ ...plan, bookings }));
  },
  async publish(web, actor, model) {
    const differs = top(model) !== model.draft;
    const refused = await refusedWith(409, web.publishEdition(actor, await web.lastChange(actor.networkId)));
    if (differs) expect(refused).toBe(false);
    if (refused) return;
    if (differs || model.planned.length === 0) out(model, model.draft);
    else aside(model);
    if (differs) model.planned = model.planned.map(() => model.draft);
  },
  async plan(web, actor, model) {
    const differs = top(model) !== model.draft;
    const at = Date.now() + (model.planned.length + 1) * HOUR;
    const refused = await refusedWith(409, web.planEdition(actor, await web.lastChange(actor.networkId), at));
    if (differs) expect(refused).toBe(false);
    if (!refused) model.planned.push(model.draft);
  },
  async due(_web, actor, model) {
    const [first] = model.planned.splice(0, 1);
    if (first === undefined) return;
    // Its time has come, and no worker has written its number yet.
    await rows(
      `UPDATE editions SET planned_for = now() - interval '1 second' WHERE id = (
         SELECT id FROM editions WHERE network_id = $1 AND number IS NULL ORDER BY planned_for LIMIT 1)`,
      [actor.networkId],
    );
    out(model, first);
  },
  async publishDue(web) {
    await web.publishDue();
  },
  async publishEarly(web, actor, model) {
    const [first] = await web.plannedEditions(actor);
    if (!first || Date.parse(first.at ?? '') < Date.now()) return;
    await web.publishPlanned(actor, first.id);
    out(model, model.planned.shift() ?? '');
  },
  async callOff(web, actor, model) {
    const last = (await web.plannedEditions(actor)).at(-1);
    if (!last || Date.parse(last.at ?? '') < Date.now()) return;
    await web.callOffPlanned(actor, last.id);
    model.planned.pop();
  },
  async again(web, actor, model, pick) {
    await web.publishDue();
    const numbers = [...model.editions.keys()];
    const number = numbers[pick % numbers.length] ?? 1;
    await web.publishAgain(actor, number);
    out(model, model.editions.get(number) ?? '');
  },
  async putOn(web, actor, model) {
    if (model.putOn) return;
    const until = Date.now() + HOUR;
    model.putOn = (await web.putOn(actor, { content: { media: 'put' }, where: 'hall', until, zone: 'UTC' })).id;
    aside(model);
  },
  async end(web, actor, model) {
    if (!model.putOn) return;
    await web.endPutOn(actor, model.putOn);
    model.putOn = null;
    aside(model);
  },
  async fire(web, actor, model) {
    const refused = await refusedWith(409, web.fireTakeover(actor, 'gale'));
    expect(refused).toBe(model.inForce);
    if (!refused) aside(model);
    model.inForce = true;
  },
  async allClear(web, actor, model) {
    if (!model.inForce) return;
    await web.allClear(actor, 'gale');
    model.inForce = false;
    aside(model);
  },
};

const step = fc.record({
  way: fc.constantFrom(...Object.keys(WAYS)),
  web: fc.integer({ min: 0, max: 1 }),
  pick: fc.nat(50),
});

test('whatever is done in whatever order, by whichever process, each screen shows what it should', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 12, maxLength: 30 }), async (steps) => {
      const actor = await network(webs[0] as Web);
      const model: Model = {
        ...{ draft: 'one', editions: new Map([[1, 'one']]), planned: [], putOn: null, inForce: false },
      };
      for (const { way, web, pick } of steps) {
        await WAYS[way]?.(webs[web] as Web, actor, model, pick);
        const planned = model.editions.get(newest(model));
        expect([way, await glass(webs[1 - web] as Web, actor)]).toEqual([
          way,
          {
            deck: model.inForce ? 'gale' : planned,
            hall: model.inForce ? 'gale' : model.putOn ? 'put' : planned,
          },
        ]);
      }
    }),
    { ...runs(6), endOnFailure: true },
  );
});
