import { putOnOf } from '@/core/booking';
import { chosenPlan } from '@/core/edition';
import { forecast, programsOf } from '@/core/forecast';
import { DAY, HOUR, MINUTE } from '@/core/instant';
import { rows } from '@/database';
import { processUpload } from '../library';
import type { Actor } from '../people';
import { draftPlan, edit, lastChange } from '../plan';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { picture, send as sendFile } from '../tests/files';
import {
  docket,
  editions,
  endPutOn,
  publishAgain,
  publishEdition,
  publishedPlan,
  publishedPrograms,
  putOn,
  type PuttingOn,
  clearEditions,
  editionAt,
} from '.';

useDatabase();

/** A Friday, half past ten in UTC. */
const NOW = Date.parse('2026-11-27T10:30:00.500Z');
const drill: PuttingOn = { content: { media: 'drill' }, where: 'hall', until: NOW + HOUR, zone: 'Europe/Oslo' };

async function send(actor: Actor, name: string, colour: string): Promise<void> {
  const received = await sendFile(actor, name, await picture(300, 200, colour));
  if ('upload' in received) await processUpload(received.upload.id);
}

/** A network whose first edition is out, with a file that nothing uses. */
async function network(): Promise<Actor> {
  const actor = await newNetwork();
  await newPlan(actor);
  await send(actor, 'Drill.jpg', '#AA3311');
  await publishEdition(actor, await lastChange(actor.networkId));
  return actor;
}

const published = async (actor: Actor) => {
  const found = await publishedPlan(actor);
  if (!found) throw new Error('nothing is published');
  return found.plan;
};
/** What a screen shows at an instant, by the newest edition. */
async function showing(actor: Actor, screen: string, at: number): Promise<string | null> {
  const program = programsOf(await published(actor)).get(screen);
  if (!program) throw new Error(`no ${screen}`);
  const [segment] = forecast(program, at, at + 1).segments;
  return segment?.id ?? null;
}
const waiting = async (actor: Actor) => (await docket(actor)).entries.map(({ kind, id }) => `${kind} ${id}`).sort();

test('what is on stays on whatever edition is published again, and what was ended does not come back', async () => {
  const actor = await network();
  const { id, edition } = await putOn(actor, drill, NOW);
  await publishAgain(actor, 1, { now: NOW + MINUTE });
  expect(await showing(actor, 'hall', NOW + 2 * MINUTE)).toBe(id);
  expect(await showing(actor, 'hall', NOW + HOUR)).not.toBe(id);
  await endPutOn(actor, id, NOW + 3 * MINUTE);
  await publishAgain(actor, edition, { now: NOW + 4 * MINUTE });
  expect(await showing(actor, 'hall', NOW + 5 * MINUTE)).not.toBe(id);
});

test('a display in lights-out hours stays dark, unless it is to be switched on', async () => {
  const actor = await network();
  await edit(actor, [{ kind: 'screen', id: 'hall', set: { lightsOut: [{}] } }]);
  await publishEdition(actor, await lastChange(actor.networkId));
  await putOn(actor, drill, NOW);
  expect(await showing(actor, 'hall', NOW + MINUTE)).toBeNull();
  const { id } = await putOn(actor, { ...drill, wake: true }, NOW + MINUTE);
  expect(await showing(actor, 'hall', NOW + 2 * MINUTE)).toBe(id);
  expect(await showing(actor, 'hall', NOW + HOUR)).toBeNull();
});

test('editions that were made by hand are kept for two weeks; of those that are gone it stays known that one was out', async () => {
  const actor = await network();
  const day = (n: number) => new Date(Date.now() - n * DAY);
  const at = (number: number, days: number) =>
    rows('UPDATE editions SET published_at = $3 WHERE network_id = $1 AND number = $2', [
      actor.networkId,
      number,
      day(days),
    ]);
  const { id } = await putOn(actor, drill, NOW);
  await endPutOn(actor, id, NOW + MINUTE);
  await edit(actor, [{ kind: 'playlist', id: 'house', set: { name: 'Home' } }]);
  await publishEdition(actor, await lastChange(actor.networkId));
  await putOn(actor, drill, NOW);
  for (const [number, days] of [
    [1, 40],
    [2, 30],
    [3, 29],
    [4, 28],
    [5, 27],
  ] as const)
    await at(number, days);
  const change = await lastChange(actor.networkId);
  await rows("UPDATE changes SET at = now() - interval '500 days' WHERE network_id = $1", [actor.networkId]);
  await clearEditions(new Date());
  // The newest one is what players run, however it was made.
  expect((await editions(actor)).map(({ number }) => number)).toEqual([5, 4, 1]);
  const then = async (days: number) => {
    const { edition, cleared, from, to } = await editionAt(actor, day(days));
    return [edition?.number ?? null, cleared, from?.slice(0, 10), to?.slice(0, 10)];
  };
  const date = (n: number) => day(n).toISOString().slice(0, 10);
  expect(await then(35)).toEqual([1, false, date(40), date(30)]);
  expect(await then(29.5)).toEqual([null, true, date(30), date(29)]);
  expect(await then(28.5)).toEqual([null, true, date(29), date(28)]);
  expect(await then(27.5)).toEqual([4, false, date(28), date(27)]);
  // What is in an edition is forgotten with time; numbers go on from where they were.
  expect(await rows('SELECT id::int FROM changes WHERE network_id = $1', [actor.networkId])).toEqual([{ id: change }]);
  expect(await lastChange(actor.networkId)).toBe(change);
});

test('it is on at once and to the second, ahead of all that is booked, and ends by itself', async () => {
  const actor = await network();
  await edit(actor, [
    {
      kind: 'booking',
      id: 'top',
      add: {
        name: 'Top',
        content: { playlist: 'house' },
        where: 'all',
        priority: 5,
        created: '2026-01-01T00:00:00Z',
        when: {},
      },
    },
  ]);
  await publishEdition(actor, await lastChange(actor.networkId));
  const deck = (await publishedPrograms(actor.networkId)).get('deck');
  const { id, edition, screens } = await putOn(actor, drill, NOW);
  expect([edition, screens]).toEqual([3, ['hall']]);
  expect(await showing(actor, 'hall', NOW)).toBe(id);
  expect(await showing(actor, 'hall', NOW + HOUR - 501)).toBe(id);
  expect(await showing(actor, 'hall', NOW + HOUR)).not.toBe(id);
  expect((await publishedPrograms(actor.networkId)).get('deck')).toBe(deck);
  const [booking] = (await published(actor)).bookings.filter((one) => one.id === id);
  expect(booking).toMatchObject({
    name: 'Drill, put on',
    takeover: true,
    priority: 1,
    when: { clock: 'Europe/Oslo', from: '2026-11-27', to: '2026-11-27', windows: [['11:30', '12:30']] },
  });
});

test('an unfinished draft does not ride along, and what was put on does not wait in the docket', async () => {
  const actor = await network();
  await edit(actor, [
    { kind: 'screen', id: 'deck', set: { name: 'Half done' } },
    { kind: 'playlist', id: 'later', add: { name: 'Later', items: [{ media: 'drill' }] } },
  ]);
  const { id } = await putOn(actor, drill, NOW);
  const plan = await published(actor);
  expect(plan.screens.find((one) => one.id === 'deck')?.name).toBe('Deck');
  expect(plan.playlists.some((one) => one.id === 'later')).toBe(false);
  expect((await draftPlan(actor)).plan.bookings.map((one) => one.id)).toEqual([id]);
  expect(await waiting(actor)).toEqual(['playlist later', 'screen deck']);
  // The next publication leaves it on.
  await publishEdition(actor, await lastChange(actor.networkId));
  expect(await waiting(actor)).toEqual([]);
  expect(await showing(actor, 'hall', NOW)).toBe(id);
});

test('where nothing waits, nothing waits afterwards, and the edition is the draft', async () => {
  const actor = await network();
  const { id } = await putOn(actor, drill, NOW);
  expect(await waiting(actor)).toEqual([]);
  expect((await editions(actor))[0]).toMatchObject({ number: 2, whole: true, touched: 1, note: 'Put on: Drill' });
  await endPutOn(actor, id, NOW + MINUTE);
  expect((await editions(actor))[0]).toMatchObject({ number: 3, whole: true, note: 'Ended: Drill, put on' });
  await expect(publishEdition(actor, await lastChange(actor.networkId))).rejects.toMatchObject({ status: 409 });
});

test('content that is in no edition yet goes along; a new screen does not', async () => {
  const actor = await network();
  await send(actor, 'New.jpg', '#114411');
  await edit(actor, [
    { kind: 'playlist', id: 'fresh', add: { name: 'Fresh', items: [{ media: 'new' }] } },
    { kind: 'screen', id: 'pier', add: { name: 'Pier', site: 'quay', width: 100, height: 100, tags: [] } },
  ]);
  const { screens } = await putOn(
    actor,
    { ...drill, content: { playlist: 'fresh' }, where: 'screen:hall or screen:pier' },
    NOW,
  );
  expect(screens).toEqual(['hall']);
  expect(await waiting(actor)).toEqual(['screen pier']);
  await expect(putOn(actor, { ...drill, where: 'screen:pier' }, NOW)).rejects.toMatchObject({
    status: 422,
    message: expect.stringContaining('None of these screens'),
  });
});

test('it is ended at once, in the draft too; what is over or was never put on is not', async () => {
  const actor = await network();
  const { id } = await putOn(actor, drill, NOW);
  await endPutOn(actor, id, NOW + 20 * MINUTE);
  expect(await showing(actor, 'hall', NOW + 20 * MINUTE - 501)).toBe(id);
  expect(await showing(actor, 'hall', NOW + 20 * MINUTE)).not.toBe(id);
  const plan = await published(actor);
  expect((await draftPlan(actor)).plan.bookings).toEqual(plan.bookings);
  await expect(endPutOn(actor, id, NOW + HOUR)).rejects.toMatchObject({ status: 409 });
  await expect(endPutOn(actor, 'gone', NOW)).rejects.toMatchObject({ status: 404 });
  // In the second in which it was put on, it has been on for one.
  const again = await putOn(actor, drill, NOW);
  await endPutOn(actor, again.id, NOW);
  const [short] = (await published(actor)).bookings.filter((one) => one.id === again.id);
  expect(short && putOnOf(short)).toMatchObject({ to: NOW + 500 });
});

test('what somebody took out of the draft meanwhile is ended on the screens all the same', async () => {
  const actor = await network();
  const { id } = await putOn(actor, drill, NOW);
  await edit(actor, [{ kind: 'booking', id, remove: true }]);
  expect(await waiting(actor)).toEqual([`booking ${id}`]);
  await endPutOn(actor, id, NOW + MINUTE);
  expect(await showing(actor, 'hall', NOW + 2 * MINUTE)).not.toBe(id);
  expect((await draftPlan(actor)).plan.bookings).toEqual([]);
});

test("two who put something on at once both do, the later one on top; nobody else's network is touched", async () => {
  const [actor, other] = [await network(), await network()];
  const made = await Promise.all([putOn(actor, drill, NOW), putOn(actor, drill, NOW)]);
  expect(made.map(({ edition }) => edition).sort()).toEqual([2, 3]);
  expect((await published(actor)).bookings.map(({ name }) => name).sort()).toEqual([
    'Drill, put on',
    'Drill, put on (2)',
  ]);
  expect(await editions(other)).toHaveLength(1);
  await expect(endPutOn(other, made[0].id, NOW)).rejects.toMatchObject({ status: 404 });
});

test.each<[string, Partial<PuttingOn>, number]>([
  ['for a day or longer', { until: NOW + DAY }, 422],
  ['until it is over already', { until: NOW - 1000 }, 422],
  ['of a file that is none', { content: { media: 'gone' } }, 404],
  ['on what is no selector', { where: 'hall and' }, 422],
])('nothing is put on %s, and nothing is half done', async (_, wrong, status) => {
  const actor = await network();
  const before = await lastChange(actor.networkId);
  await expect(putOn(actor, { ...drill, ...wrong }, NOW)).rejects.toMatchObject({ status });
  expect(await lastChange(actor.networkId)).toBe(before);
  expect(await editions(actor)).toHaveLength(1);
});

test('before the first edition there is nothing to put it beside', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  await expect(putOn(actor, { ...drill, content: { playlist: 'house' } }, NOW)).rejects.toMatchObject({
    status: 409,
    message: expect.stringContaining('Publish the first edition'),
  });
});

test('a choice of the docket leaves on what was put on', async () => {
  const actor = await network();
  const { id } = await putOn(actor, drill, NOW);
  await edit(actor, [{ kind: 'screen', id: 'deck', set: { name: 'Sun deck' } }]);
  await edit(actor, [{ kind: 'screen', id: 'hall', set: { name: 'Great hall' } }]);
  await publishEdition(actor, await lastChange(actor.networkId), {
    chosen: [{ kind: 'screen', id: 'deck' }],
  });
  expect(await showing(actor, 'hall', NOW)).toBe(id);
  const plan = await published(actor);
  expect(chosenPlan(plan, (await draftPlan(actor)).plan, []).plan).toBe(plan);
});

test('what shows nothing on these screens gets a message, and is not put on', async () => {
  const actor = await network();
  await edit(actor, [
    { kind: 'playlist', id: 'empty', add: { name: 'Empty', items: [] } },
    { kind: 'playlist', id: 'others', add: { name: 'For others', items: [{ media: 'drill', where: 'deck' }] } },
  ]);
  const put = (playlist: string, where = 'hall') => putOn(actor, { ...drill, content: { playlist }, where }, NOW);
  await expect(put('empty')).rejects.toThrow('“Empty” shows nothing on these screens');
  await expect(put('others')).rejects.toThrow('“For others” shows nothing on these screens');
  expect((await draftPlan(actor)).plan.bookings).toEqual([]);
  expect(await editions(actor)).toHaveLength(1);
  // On one of them is enough.
  expect((await put('others', 'quay')).screens).toHaveLength(2);
});
