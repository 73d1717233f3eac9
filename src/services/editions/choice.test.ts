import type { ObjectKey } from '@/core/plan';
import { rows } from '@/database';
import { beginUpload, completeUpload, makePart, processUpload, writePart } from '../library';
import { addPerson, type Actor } from '../people';
import { draftPlan, edit, lastChange, undo } from '../plan';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { picture, stream } from '../tests/files';
import {
  docket,
  docketChoice,
  editionFor,
  editions,
  publishAgain,
  publishEdition,
  publishedPlan,
  publishedPrograms,
  takeBack,
} from '.';

useDatabase();

const key = (text: string): ObjectKey => {
  const [kind = '', id = ''] = text.split(' ');
  return { kind, id } as ObjectKey;
};
const publish = async (actor: Actor, ...chosen: string[]) =>
  publishEdition(actor, await lastChange(actor.networkId), chosen.length > 0 ? { chosen: chosen.map(key) } : {});
const back = async (actor: Actor, ...chosen: string[]) =>
  takeBack(actor, await lastChange(actor.networkId), chosen.map(key));
const waiting = async (actor: Actor) => (await docket(actor)).entries.map(({ kind, id }) => `${kind} ${id}`).sort();
const booking = (id: string, where: string, playlist = 'house') => ({
  kind: 'booking' as const,
  id,
  add: { name: id, content: { playlist }, where, priority: 3, created: '2026-01-01T00:00:00Z', when: {} },
});

/** Sends a file, as the new version of another where one is named. */
async function send(actor: Actor, name: string, colour: string, replaces: string | null = null): Promise<void> {
  const bytes = await picture(300, 200, colour);
  const id = await beginUpload(actor, { name, bytes: bytes.length, batch: null, replaces });
  await makePart(id);
  await writePart(id, 0, stream(bytes));
  const received = await completeUpload(actor, id);
  if ('upload' in received) await processUpload(received.upload.id);
}

/** A network whose first edition is out: a file, in a playlist. */
async function network(): Promise<Actor> {
  const actor = await newNetwork();
  await newPlan(actor);
  await send(actor, 'Flag.jpg', '#34406B');
  await edit(actor, [{ kind: 'playlist', id: 'house', set: { items: [{ media: 'flag' }] } }]);
  await publish(actor);
  return actor;
}

test('a choice is published alone; the rest stays in the docket, and on no screen', async () => {
  const actor = await network();
  const first = await publishedPrograms(actor.networkId);
  await edit(actor, [booking('for-hall', 'hall'), booking('for-deck', 'deck')]);
  await edit(actor, [{ kind: 'screen', id: 'deck', set: { name: 'Sun deck' } }]);
  expect(await docketChoice(actor, [key('booking for-hall')])).toMatchObject({
    along: [],
    screens: ['hall'],
    problems: [],
  });
  expect(await publish(actor, 'booking for-hall')).toEqual({ number: 2 });
  expect(await waiting(actor)).toEqual(['booking for-deck', 'screen deck']);
  const { plan } = (await publishedPlan(actor)) ?? { plan: null };
  expect(plan?.bookings.map(({ id }) => id)).toEqual(['for-hall']);
  expect(plan?.screens.find(({ id }) => id === 'deck')?.name).toBe('Deck');
  expect((await publishedPrograms(actor.networkId)).get('deck')).toBe(first.get('deck'));
  expect((await editions(actor)).map(({ number, whole }) => [number, whole])).toEqual([
    [2, false],
    [1, true],
  ]);
  // A page may not take the draft for what is out.
  expect((await editionFor(actor, await lastChange(actor.networkId)))?.plan).not.toBeNull();
  expect(await publish(actor)).toEqual({ number: 3 });
  expect(await waiting(actor)).toEqual([]);
  expect((await editionFor(actor, await lastChange(actor.networkId)))?.plan).toBeNull();
});

test('all that waits, chosen one by one, is a whole edition', async () => {
  const actor = await network();
  await edit(actor, [booking('for-hall', 'hall'), booking('for-deck', 'deck')]);
  await publish(actor, 'booking for-hall');
  await publish(actor, 'booking for-deck');
  expect((await editions(actor))[0]).toMatchObject({ number: 3, whole: true });
  await expect(publish(actor)).rejects.toMatchObject({ status: 409, message: expect.stringContaining('edition 3') });
});

test('what a choice needs goes along, and is told', async () => {
  const actor = await network();
  await send(actor, 'Tide.jpg', '#AA3311');
  await edit(actor, [
    { kind: 'playlist', id: 'tides', add: { name: 'Tides', items: [{ media: 'tide' }] } },
    booking('tides', 'hall', 'tides'),
    { kind: 'playlist', id: 'other', add: { name: 'Other', items: [] } },
  ]);
  const { along, screens, fetches } = await docketChoice(actor, [key('booking tides')]);
  // The file that the hall does not have yet; the deck needs none.
  const { bytes = 0 } = (await draftPlan(actor)).plan.media.find(({ id }) => id === 'tide') ?? {};
  expect(fetches).toEqual({ most: bytes, all: bytes, each: [{ bytes, screens: ['hall'] }] });
  expect(along.map((one) => `${one.kind} ${one.id} for ${one.for.id}`)).toEqual([
    'playlist tides for tides',
    'media tide for tides',
  ]);
  expect(screens).toEqual(['hall']);
  await publish(actor, 'booking tides');
  expect(await waiting(actor)).toEqual(['playlist other']);
});

test('before the first edition, a choice is all that it needs', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  expect(await publish(actor, 'screen hall')).toEqual({ number: 1 });
  expect([...(await publishedPrograms(actor.networkId)).keys()]).toEqual(['hall']);
  expect(await waiting(actor)).toEqual(['playlist house', 'screen deck']);
});

test('only changes that wait can be chosen; nor is what nobody has seen', async () => {
  const [actor, other] = [await network(), await network()];
  await edit(other, [booking('theirs', 'hall')]);
  await edit(actor, [booking('ours', 'hall')]);
  for (const text of ['screen hall', 'screen gone', 'booking theirs'])
    await expect(publish(actor, text)).rejects.toMatchObject({
      status: 409,
      message: expect.stringContaining('These changes are all published already'),
    });
  const seen = await lastChange(actor.networkId);
  await edit(actor, [{ kind: 'booking', id: 'ours', set: { priority: 5 } }]);
  const chosen = [key('booking ours')];
  for (const act of [() => publishEdition(actor, seen, { chosen }), () => takeBack(actor, seen, chosen)])
    await expect(act()).rejects.toMatchObject({
      status: 409,
      message: expect.stringContaining('Review the changes again'),
    });
});

test('those who changed what was published by choice meanwhile are not named for what waits after it', async () => {
  const actor = await network();
  const otto = await addPerson(actor.networkId, {
    name: 'Otto',
    email: `otto-${actor.networkId.slice(-8)}@example.org`,
    password: 'a long password',
  });
  await edit(actor, [booking('b', 'hall'), booking('c', 'deck')]);
  await publish(actor, 'booking b');
  await edit(otto, [{ kind: 'booking', id: 'b', set: { priority: 5 } }]);
  expect((await docket(actor)).entries).toMatchObject([
    { id: 'b', what: 'changed', sentences: ['priority 5, was 3'], people: ['Otto'] },
    { id: 'c', what: 'added', people: [actor.name] },
  ]);
  // Put back as it was published, it waits no longer.
  await edit(actor, [{ kind: 'booking', id: 'b', set: { priority: 3 } }]);
  expect(await waiting(actor)).toEqual(['booking c']);
});

test('an edition of a choice can be gone back to, and what was never in it waits', async () => {
  const actor = await network();
  await edit(actor, [booking('b', 'hall'), booking('c', 'deck')]);
  await publish(actor, 'booking b');
  await publish(actor);
  await publishAgain(actor, 2);
  expect(await waiting(actor)).toEqual(['booking c']);
  expect((await publishedPlan(actor))?.plan.bookings.map(({ id }) => id)).toEqual(['b']);
});

test('what was changed is taken back as it was published: one act, that can be undone', async () => {
  const actor = await network();
  await send(actor, 'Tide.jpg', '#AA3311');
  await edit(actor, [
    { kind: 'screen', id: 'deck', set: { name: 'Sun deck' } },
    { kind: 'playlist', id: 'house', set: { items: [{ media: 'tide' }] } },
    booking('b', 'hall'),
  ]);
  const before = (await draftPlan(actor)).plan;
  // The file that came in is named by the playlist as it is now: that goes back with it.
  const result = await back(actor, 'media tide', 'booking b');
  expect([...result.ids].sort()).toEqual(['b', 'house', 'tide']);
  expect(await waiting(actor)).toEqual(['screen deck']);
  await undo(actor, 'undo');
  expect((await draftPlan(actor)).plan).toEqual(before);
  await back(actor, 'screen deck');
  expect((await draftPlan(actor)).plan.screens.find(({ id }) => id === 'deck')?.name).toBe('Deck');
  await expect(back(actor, 'screen deck')).rejects.toMatchObject({
    status: 409,
    message: expect.stringContaining('These changes are all published already'),
  });
});

test('a file that was replaced is taken back, as long as its earlier version is kept', async () => {
  const actor = await network();
  const flag = async () => (await draftPlan(actor)).plan.media[0];
  const published = await flag();
  await send(actor, 'Flag, new.jpg', '#AA3311', 'flag');
  expect((await flag())?.sha256).not.toBe(published?.sha256);
  await back(actor, 'media flag');
  expect(await flag()).toEqual(published);
  await undo(actor, 'undo');
  await rows('DELETE FROM media_versions WHERE network_id = $1', [actor.networkId]);
  await expect(back(actor, 'media flag')).rejects.toMatchObject({
    status: 409,
    message: expect.stringContaining('earlier version of “Flag” is no longer kept'),
  });
});

test('what was removed is taken back with its file', async () => {
  const actor = await network();
  const before = (await draftPlan(actor)).plan;
  await edit(actor, [
    { kind: 'playlist', id: 'house', set: { items: [] } },
    { kind: 'media', id: 'flag', remove: true },
  ]);
  await back(actor, 'playlist house');
  expect((await draftPlan(actor)).plan).toEqual(before);
});

test('before the first edition nothing can be taken back', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  await expect(back(actor, 'screen hall')).rejects.toMatchObject({
    status: 409,
    message: expect.stringContaining('Nothing has been published yet'),
  });
});
