import { FORMAT } from '@/core/plan';
import { ChangeRow, rows } from '@/database';
import { docket, publishAgain, publishEdition, publishedPlan } from '../editions';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { draftPlan, edit, lastChange, undo } from '.';

/** What is kept of a plan between questions is never told once it is old. */

useDatabase();

const screen = (name: string) => ({ name, site: 'quay', width: 1080, height: 1920, tags: ['deck'] });
const rename = (actor: Parameters<typeof edit>[0], name: string) =>
  edit(actor, [{ kind: 'screen', id: 'deck', set: screen(name) }]);

test('while nothing is edited the draft is the same object; what an edit leaves alone stays the same', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const first = await draftPlan(actor);
  expect((await draftPlan(actor)).plan).toBe(first.plan);
  await rename(actor, 'Sun deck');
  const second = await draftPlan(actor);
  expect(second.plan.screens.map(({ name }) => name).sort()).toEqual(['Hall', 'Sun deck']);
  expect(first.plan.screens.map(({ name }) => name).sort()).toEqual(['Deck', 'Hall']);
  expect(second.plan.playlists).toBe(first.plan.playlists);
  expect(second.change).toBe(await lastChange(actor.networkId));
  await undo(actor, 'undo');
  expect((await draftPlan(actor)).plan).toEqual(first.plan);
});

test('an edit that another process made is seen: the database says which change is the last', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  await draftPlan(actor);
  await rows(
    `UPDATE plan_objects SET name = 'Elsewhere', document = document || '{"name": "Elsewhere"}' WHERE network_id = $1 AND kind = 'screen' AND slug = 'deck'`,
    [actor.networkId],
  );
  await ChangeRow.create({
    ...{ networkId: actor.networkId, personId: null, kind: 'screen' as const, object: 'deck', format: FORMAT },
    ...{ before: { id: 'deck', ...screen('Deck') }, after: { id: 'deck', ...screen('Elsewhere') } },
  });
  expect((await draftPlan(actor)).plan.screens.find(({ id }) => id === 'deck')?.name).toBe('Elsewhere');
});

test('one network is never told of another', async () => {
  const [ours, theirs] = [await newNetwork(), await newNetwork()];
  await newPlan(ours);
  await newPlan(theirs);
  await rename(theirs, 'Theirs');
  await draftPlan(theirs);
  expect(JSON.stringify((await draftPlan(ours)).plan)).not.toContain('Theirs');
});

test('a kept plan can not be changed by who reads it', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const { plan } = await draftPlan(actor);
  expect(() => plan.screens.pop()).toThrow(TypeError);
  expect(() => plan.screens.reverse()).toThrow(TypeError);
  expect(() => Object.assign(plan, { screens: [] })).toThrow(TypeError);
});

test('many who read while others edit: each sees a whole state, with the change that made it', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const both = (n: number) =>
    edit(actor, [
      { kind: 'screen', id: 'deck', set: screen(`Deck ${n}`) },
      { kind: 'playlist', id: 'house', set: { name: `House ${n}`, items: [] } },
    ]);
  const edits = Array.from({ length: 8 }, (_, n) => both(n));
  const reads = Array.from({ length: 24 }, () => draftPlan(actor));
  await Promise.all(edits);
  const byChange = new Map<number, string>();
  for (const { plan, change } of await Promise.all(reads)) {
    const [deck, house] = [plan.screens.find(({ id }) => id === 'deck')?.name, plan.playlists[0]?.name];
    expect(deck?.replace('Deck', '')).toBe(house?.replace('House', ''));
    expect(byChange.get(change) ?? deck).toBe(deck);
    byChange.set(change, deck ?? '');
  }
});

test('the docket follows edits and editions, also an edition that is published again', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const publish = async () => publishEdition(actor, (await docket(actor)).change);
  await publish();
  expect((await docket(actor)).entries).toEqual([]);
  await rename(actor, 'Sun deck');
  expect((await docket(actor)).entries.map(({ id, what }) => [id, what])).toEqual([['deck', 'changed']]);
  await publish();
  expect(await docket(actor)).toMatchObject({ entries: [], edition: { number: 2 } });
  expect((await publishedPlan(actor))?.plan.screens.map(({ name }) => name)).toContain('Sun deck');
  await publishAgain(actor, 1);
  expect((await publishedPlan(actor))?.plan.screens.map(({ name }) => name)).toContain('Deck');
  expect((await docket(actor)).entries.map(({ id }) => id)).toEqual(['deck']);
});
