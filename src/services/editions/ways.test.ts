import fc from 'fast-check';
import * as sequelize from 'sequelize';
import type { ProgramDocument } from '@/core/edition';
import { forecast } from '@/core/forecast';
import { HOUR } from '@/core/instant';
import { runs } from '@/core/tests/runs';
import { rows } from '@/database';
import { processUpload } from '../library';
import { actorOfKey, addPerson, makeKey, type Actor } from '../people';
import type * as Plans from '../plan';
import type { Player, targetOf } from '../screens';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { picture, send } from '../tests/files';
import { pairedPlayer } from '../tests/players';
import type * as Editions from '.';

useDatabase();
jest.setTimeout(240_000);

/**
 * All ways to the glass in any order, by two web processes at once, against a model of what each screen should show. The table in
 * docs/architecture.md says what must happen for each pair. The worker is dead most of the time: editions that are due get no number until
 * somebody does something (`due`), or one runs again (`publishDue`). The player in the hall is away at times, and goes by what it heard last.
 */

/** Two copies of the services, as two web processes have them: each remembers its own plans and editions. */
type Web = typeof Editions &
  Pick<typeof Plans, 'draftPlan' | 'edit' | 'importPlan' | 'lastChange' | 'undo'> & {
    readonly targetOf: typeof targetOf;
  };
const webs: Web[] = [];
beforeAll(async () => {
  for (let i = 0; i < 2; i++)
    await jest.isolateModulesAsync(async () => {
      // The line to the database is one.
      jest.doMock('sequelize', () => sequelize);
      const [editions, { draftPlan, edit, importPlan, lastChange, undo }] = [
        await import('.'),
        await import('../plan'),
      ];
      const { targetOf: target } = await import('../screens');
      webs.push({ ...editions, draftPlan, edit, importPlan, lastChange, undo, targetOf: target });
    });
});

const PICTURES = ['one', 'two', 'three'];

/** Who does something: a person who plans, another who does everything else, a program, and the player in the hall. */
interface Cast {
  readonly planner: Actor;
  readonly actor: Actor;
  readonly program: Actor;
  readonly hall: Player;
}

/** A network whose screens show the first picture, with a takeover that is prepared. */
async function network(web: Web): Promise<Cast> {
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
  const person = { name: 'Planner', email: `${actor.personId}@example.org`, password: 'a long password' };
  const { token } = await makeKey(actor, { name: 'Program', rights: ['publish'] });
  return {
    planner: await addPerson(actor.networkId, person),
    actor,
    program: await actorOfKey(token, 'publish', { address: '10.0.0.1' }),
    hall: await pairedPlayer(actor, 'hall'),
  };
}

/** What a program shows in a moment: what is ended has its last second. */
async function shownBy(hash: string | null | undefined): Promise<string | undefined> {
  const [row] = await rows<{ document: string }>('SELECT document FROM program_documents WHERE hash = $1', [hash]);
  const now = Date.now() + 2000;
  const program = JSON.parse(row?.document ?? '{}') as ProgramDocument;
  return forecast(program, now, now + 1000, { plays: true }).plays[0]?.media;
}

/** What each screen is given to show now, by the database alone. */
async function glass(web: Web, { networkId }: Actor): Promise<Record<string, string | undefined>> {
  const shown: Record<string, string | undefined> = {};
  for (const [screen, hash] of await web.deliveredPrograms(networkId)) shown[screen] = await shownBy(hash);
  return shown;
}

/** What should be: the picture of the draft, of each edition by its number, and of those that wait; and what is on by hand. */
interface Model {
  draft: string;
  /** The planner's own edits and imports, the last one last: what each made of what. */
  readonly acts: { readonly from: string; readonly to: string }[];
  readonly editions: Map<number, string>;
  planned: string[];
  /** How many editions were planned so far, cancelled ones too. */
  plans: number;
  /** What is tried in the hall, and whether it has passed and waits for its time. */
  pilot: { picture: string; passed: boolean } | null;
  putOn: string | null;
  inForce: boolean;
  /** The booking of a drill on deck. */
  drill: string | null;
  away: Away | null;
}

/** What the player in the hall heard last: what it shows, and what comes; and how often a time has come since. */
interface Away {
  readonly target: Awaited<ReturnType<typeof targetOf>>;
  /** What it shows as the chain of what comes, by hand or not. */
  readonly chain: readonly string[];
  readonly byHand: string | null;
  due: number;
}

const newest = ({ editions }: Model) => Math.max(...editions.keys());
const isOut = (model: Model) => model.editions.get(newest(model)) ?? '';
const top = (model: Model) => model.pilot?.picture ?? model.planned.at(-1) ?? isOut(model);
const byHandInHall = ({ inForce, putOn }: Model) => (inForce ? 'gale' : putOn ? 'put' : null);
/** How often the picture changes in a chain. */
const changesIn = (chain: readonly string[]) => chain.filter((one, i) => i > 0 && chain[i - 1] !== one).length;

const refusedWith = async (statuses: readonly number[], work: Promise<unknown>): Promise<boolean> =>
  work.then(
    () => false,
    (error: { status?: number }) => {
      if (!statuses.includes(error.status ?? 0)) throw error;
      return true;
    },
  );

type Way = (web: Web, cast: Cast, model: Model, pick: number) => Promise<void>;

const out = (model: Model, picture_: string) => void model.editions.set(newest(model) + 1, picture_);
/** What is done by hand makes an edition of its own, which holds what the one before it does. */
const aside = (model: Model) => out(model, isOut(model));

/** What waits first is out for all, by the model. */
function firstIsOut(model: Model): void {
  out(model, model.pilot?.picture ?? model.planned.shift() ?? '');
  model.pilot = null;
}
async function edited(web: Web, { planner }: Cast, model: Model, media: string): Promise<void> {
  await web.edit(planner, [{ kind: 'booking', id: 'base', set: { content: { media } } }]);
  drafted(model, media);
}
function drafted(model: Model, media: string): void {
  if (media !== model.draft) model.acts.push({ from: model.draft, to: media });
  model.draft = media;
}
/** What would be published is another picture than what is out, or waits last. */
async function differing(web: Web, cast: Cast, model: Model): Promise<void> {
  if (top(model) === model.draft) await edited(web, cast, model, PICTURES.find((one) => one !== model.draft) ?? '');
}
async function published(web: Web, by: Actor, model: Model): Promise<void> {
  const differs = top(model) !== model.draft;
  const refused = await refusedWith([409], web.publishEdition(by, await web.lastChange(by.networkId)));
  if (differs) expect(refused).toBe(false);
  if (refused) return;
  if (differs || (model.planned.length === 0 && !model.pilot)) out(model, model.draft);
  else aside(model);
  if (!differs) return;
  model.planned = model.planned.map(() => model.draft);
  if (model.pilot) model.pilot.picture = model.draft;
}
/** The first that waits, where its time has not come. */
async function firstWaiting(web: Web, actor: Actor, which = 0) {
  const one = (await web.plannedEditions(actor)).at(which);
  return one && !(Date.parse(one.at ?? '') < Date.now()) ? one : null;
}

const WAYS: Record<string, Way> = {
  edit: (web, cast, model, pick) => edited(web, cast, model, PICTURES[pick % 3] ?? ''),
  async import(web, { planner }, model, pick) {
    const { planFile } = await import('@/core/plan');
    const media = PICTURES[pick % 3] ?? '';
    const { plan } = await web.draftPlan(planner);
    const bookings = plan.bookings.map((one) => (one.id === 'base' ? { ...one, content: { media } } : one));
    await web.importPlan(planner, planFile({ ...plan, bookings }));
    drafted(model, media);
  },
  async undo(web, { planner }, model) {
    const last = model.acts.pop();
    const refused = await refusedWith([409], web.undo(planner, 'undo'));
    expect(refused).toBe(last !== undefined && ![last.from, last.to].includes(model.draft));
    if (last && !refused) model.draft = last.from;
  },
  publish: (web, { actor }, model) => published(web, actor, model),
  publishByKey: (web, { program }, model) => published(web, program, model),
  async plan(web, cast, model, pick) {
    const { actor } = cast;
    if (pick % 2 === 0) await differing(web, cast, model);
    const differs = top(model) !== model.draft;
    // Each is an hour later than the last: two within a second would have the same time.
    const at = Date.now() + ++model.plans * HOUR;
    const refused = await refusedWith([409], web.planEdition(actor, await web.lastChange(actor.networkId), at));
    if (differs) expect(refused).toBe(model.pilot !== null);
    if (!refused) model.planned.push(model.draft);
  },
  async pilot(web, cast, model, pick) {
    const { actor } = cast;
    if (pick % 4 > 0) await differing(web, cast, model);
    const differs = top(model) !== model.draft;
    const waits = model.planned.length > 0 || model.pilot !== null;
    const pilot = { where: 'hall', minutes: 5, at: Date.now() + HOUR };
    const tried = web.pilotEdition(actor, await web.lastChange(actor.networkId), pilot);
    const refused = await refusedWith(differs && !waits ? [] : [409, 422], tried);
    if (!refused) model.pilot = { picture: model.draft, passed: false };
  },
  async pilotSettles(web, { actor }, model, pick) {
    const one = model.pilot && (await firstWaiting(web, actor));
    if (!one?.pilot || !model.pilot) return;
    const running = { id: one.id, networkId: actor.networkId, pilot: one.pilot, passed: model.pilot.passed };
    const passes = pick % 2 === 0 && !one.pilot.stopped;
    await web.settlePilot(
      running,
      passes ? { kind: 'pass', litSince: one.pilot.begun } : { kind: 'stop', why: 'An error' },
    );
    model.pilot.passed = passes;
  },
  async due(_web, { actor }, model) {
    if (model.pilot ? !model.pilot.passed : model.planned.length === 0) return;
    // Its time has come, and no worker has written its number yet.
    await rows(
      `UPDATE editions SET planned_for = now() - interval '1 second' WHERE id = (
         SELECT id FROM editions WHERE network_id = $1 AND number IS NULL ORDER BY planned_for LIMIT 1)`,
      [actor.networkId],
    );
    firstIsOut(model);
    if (model.away) model.away.due = Math.min(model.away.due + 1, model.away.chain.length - 1);
  },
  async publishDue(web) {
    await web.publishDue();
  },
  async publishEarly(web, { actor }, model) {
    const first = await firstWaiting(web, actor);
    if (!first) return;
    await web.publishPlanned(actor, first.id);
    firstIsOut(model);
  },
  async callOff(web, { actor }, model) {
    const last = await firstWaiting(web, actor, -1);
    if (!last) return;
    await web.callOffPlanned(actor, last.id);
    if (model.pilot) model.pilot = null;
    else model.planned.pop();
  },
  async again(web, { actor }, model, pick) {
    await web.publishDue();
    const numbers = [...model.editions.keys()];
    const number = numbers[pick % numbers.length] ?? 1;
    const refused = await refusedWith([409], web.publishAgain(actor, number));
    expect(refused).toBe(model.pilot !== null);
    if (!refused) out(model, model.editions.get(number) ?? '');
  },
  async putOn(web, { actor }, model) {
    if (model.putOn) return;
    const until = Date.now() + HOUR;
    model.putOn = (await web.putOn(actor, { content: { media: 'put' }, where: 'hall', until, zone: 'UTC' })).id;
    aside(model);
  },
  async end(web, { actor }, model) {
    if (!model.putOn) return;
    await web.endPutOn(actor, model.putOn);
    model.putOn = null;
    aside(model);
  },
  async fire(web, { actor }, model) {
    const refused = await refusedWith([409], web.fireTakeover(actor, 'gale'));
    expect(refused).toBe(model.inForce);
    if (!refused) aside(model);
    model.inForce = true;
  },
  async drill(web, { actor }, model) {
    if (model.drill || model.inForce) return;
    model.drill = (await web.drillTakeover(actor, 'gale', 'deck')).booking;
    aside(model);
  },
  async allClear(web, { actor }, model, pick) {
    const drill = pick % 2 === 0 ? model.drill : null;
    if (!drill && !model.inForce) return;
    await web.allClear(actor, drill ?? 'gale');
    if (drill) model.drill = null;
    else model.inForce = false;
    aside(model);
  },
  /** It hears of all that there is, and then of nothing more. */
  async leave(web, { actor, hall }, model) {
    const chain = [model.pilot?.picture ?? isOut(model), ...model.planned];
    const program = (await web.deliveredPrograms(actor.networkId)).get('hall');
    for (;;) {
      const target = await web.targetOf(hall);
      if (target.program === program && (target.coming?.length ?? 0) === changesIn(chain)) {
        model.away = { target, chain, byHand: byHandInHall(model), due: 0 };
        return;
      }
      await rows('SELECT 1');
    }
  },
};

/** What a player that is away shows, by what it heard; `picture` is what it should. */
async function ofAway({ target, chain, byHand, due }: Away) {
  const changed = changesIn(chain.slice(0, due + 1));
  const program = changed === 0 ? target.program : target.coming?.[changed - 1]?.program;
  return { shown: await shownBy(program), picture: byHand ?? chain[due] };
}

const step = fc.record({
  way: fc.constantFrom(...Object.keys(WAYS)),
  web: fc.integer({ min: 0, max: 1 }),
  pick: fc.nat(50),
});

test('whatever is done in whatever order, by whichever process, each screen shows what it should', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 12, maxLength: 30 }), async (steps) => {
      const cast = await network(webs[0] as Web);
      const model: Model = {
        ...{ draft: 'one', acts: [], editions: new Map([[1, 'one']]), planned: [], plans: 0, pilot: null, putOn: null },
        ...{ inForce: false, drill: null, away: null },
      };
      for (const { way, web, pick } of steps) {
        await WAYS[way]?.(webs[web] as Web, cast, model, pick);
        expect([way, await glass(webs[1 - web] as Web, cast.actor)]).toEqual([
          way,
          {
            deck: model.inForce || model.drill ? 'gale' : isOut(model),
            hall: byHandInHall(model) ?? model.pilot?.picture ?? isOut(model),
          },
        ]);
        const away = model.away && (await ofAway(model.away));
        if (away) expect([way, away.shown]).toEqual([way, away.picture]);
      }
    }),
    { ...runs(6), endOnFailure: true },
  );
});
