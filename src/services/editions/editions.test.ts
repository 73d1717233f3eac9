import { canonicalJson, compileEdition } from '@/core/edition';
import { sha256Hex } from '@/core/sha256';
import { ProgramRow, rows } from '@/database';
import { processUpload } from '../library';
import { draftPlan, edit, lastChange } from '../plan';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { picture, send } from '../tests/files';
import { compile } from './compile';
import { programsBy } from './programs';
import {
  clearEditions,
  keep,
  kept,
  docket,
  editionAt,
  editionPlan,
  editions,
  publishAgain,
  publishEdition,
  publishedPlan,
  publishedPrograms,
} from '.';

useDatabase();

async function network() {
  const actor = await newNetwork();
  await newPlan(actor);
  const received = await send(actor, 'Flag.jpg', await picture(300, 200, '#34406B'));
  if ('upload' in received) await processUpload(received.upload.id);
  await edit(actor, [{ kind: 'playlist', id: 'house', set: { name: 'House', items: [{ media: 'flag' }] } }]);
  return actor;
}

type Actor = Awaited<ReturnType<typeof network>>;
const publish = async (actor: Actor) => publishEdition(actor, await lastChange(actor.networkId));
const book = (actor: Actor, where: string, priority = 3) =>
  edit(actor, [
    {
      kind: 'booking',
      id: 'b',
      add: {
        name: 'B',
        content: { playlist: 'house' },
        where,
        priority,
        created: '2026-01-01T00:00:00Z',
        when: {},
      },
    },
  ]);

test('before the first edition the docket holds everything; after it, nothing', async () => {
  const actor = await network();
  const before = await docket(actor);
  expect(before.edition).toBeNull();
  expect(before.entries.map((entry) => `${entry.what} ${entry.kind}`).sort()).toEqual([
    'added media',
    'added playlist',
    'added screen',
    'added screen',
    'added site',
  ]);
  expect(before.screens).toEqual(['deck', 'hall']);
  expect(await publish(actor)).toEqual({ number: 1 });
  expect(await docket(actor)).toMatchObject({ edition: { number: 1 }, entries: [], screens: [] });
});

test('the docket counts objects, not keystrokes, and only screens that would receive something else', async () => {
  const actor = await network();
  await publish(actor);
  await book(actor, 'hall', 2);
  await edit(actor, [{ kind: 'booking', id: 'b', set: { priority: 4 } }]);
  expect(await docket(actor)).toMatchObject({
    entries: [{ what: 'added', kind: 'booking', name: 'B' }],
    screens: ['hall'],
  });
  await edit(actor, [
    {
      kind: 'screen',
      id: 'deck',
      set: { ...(await draftPlan(actor)).plan.screens.find((one) => one.id === 'deck'), name: 'Sun deck' },
    },
  ]);
  expect(await docket(actor)).toMatchObject({
    entries: [{ what: 'changed', kind: 'screen', sentences: ['name “Sun deck”, was “Deck”'] }, { kind: 'booking' }],
    screens: ['hall'],
  });
  await edit(actor, [{ kind: 'booking', id: 'b', remove: true }]);
  expect((await docket(actor)).entries.map((entry) => entry.kind)).toEqual(['screen']);
});

test('publishing changes only the programs of screens that changed, and keeps every edition as it was', async () => {
  const actor = await network();
  await publish(actor);
  const first = await publishedPrograms(actor.networkId);
  await book(actor, 'hall');
  await publish(actor);
  const second = await publishedPrograms(actor.networkId);
  expect(second.get('deck')).toBe(first.get('deck'));
  expect(second.get('hall')).not.toBe(first.get('hall'));
  expect((await editions(actor)).map(({ number, touched }) => [number, touched])).toEqual([
    [2, 1],
    [1, 2],
  ]);
});

test('nobody publishes what they have not seen, and nothing is published twice', async () => {
  const actor = await network();
  const seen = await lastChange(actor.networkId);
  await book(actor, 'hall');
  await expect(publishEdition(actor, seen)).rejects.toMatchObject({
    status: 409,
    message: expect.stringContaining('Review the changes again'),
  });
  await publish(actor);
  await expect(publish(actor)).rejects.toMatchObject({
    status: 409,
    message: expect.stringContaining('nothing to publish'),
  });
});

test('two who publish at once make one edition', async () => {
  const actor = await network();
  const change = await lastChange(actor.networkId);
  const results = await Promise.allSettled([publishEdition(actor, change), publishEdition(actor, change)]);
  expect(results.map((one) => one.status).sort()).toEqual(['fulfilled', 'rejected']);
  expect(await editions(actor)).toHaveLength(1);
});

test('going back publishes the earlier edition again, and the docket counts from there', async () => {
  const actor = await network();
  await publish(actor);
  const first = await publishedPrograms(actor.networkId);
  await book(actor, 'all');
  await publish(actor);
  expect(await publishAgain(actor, 1)).toEqual({ number: 3 });
  expect(await publishedPrograms(actor.networkId)).toEqual(first);
  expect((await publishedPlan(actor))?.plan.bookings).toEqual([]);
  expect((await docket(actor)).entries).toMatchObject([{ what: 'added', kind: 'booking' }]);
  expect(await publish(actor)).toEqual({ number: 4 });
  await expect(publishAgain(actor, 9)).rejects.toMatchObject({ status: 404 });
});

test('what was out at an instant: the edition of that time, whatever came after it', async () => {
  const actor = await network();
  await publish(actor);
  await book(actor, 'all');
  await publish(actor);
  await rows(
    "UPDATE editions SET published_at = ('2026-11-0' || number || 'T10:00:00Z')::timestamptz WHERE network_id = $1",
    [actor.networkId],
  );
  const then = async (text: string) => {
    const { edition, ...rest } = await editionAt(actor, new Date(text));
    return { ...rest, number: edition?.number ?? null, bookings: edition?.plan.bookings.length };
  };
  const [first, second] = ['2026-11-01T10:00:00.000Z', '2026-11-02T10:00:00.000Z'];
  expect(await then('2026-11-01T09:59:59Z')).toEqual({ number: null, cleared: false, from: null, to: first });
  expect(await then(first)).toEqual({ number: 1, bookings: 0, cleared: false, from: first, to: second });
  expect(await then('2026-11-20T00:00:00Z')).toEqual({
    number: 2,
    bookings: 1,
    cleared: false,
    from: second,
    to: null,
  });
  await rows('DELETE FROM editions WHERE network_id = $1 AND number = 1', [actor.networkId]);
  expect(await then('2026-11-01T12:00:00Z')).toEqual({ number: null, cleared: true, from: null, to: second });
  expect((await editionAt(await newNetwork(), new Date(second))).edition).toBeNull();
});

test('screens with equal programs share one', async () => {
  const actor = await network();
  const { plan } = await draftPlan(actor);
  await edit(
    actor,
    plan.screens.map(({ id, ...document }) => ({
      kind: 'screen' as const,
      id,
      set: { ...document, tags: [], width: 100, height: 100 },
    })),
  );
  const before = await ProgramRow.count();
  await publish(actor);
  expect(await ProgramRow.count()).toBeLessThanOrEqual(before + 1);
  expect(new Set((await publishedPrograms(actor.networkId)).values()).size).toBe(1);
});

test('compiling gives way to others after each slice, and comes to the same', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const { plan } = await draftPlan(actor);
  let [turns, done] = [0, false];
  const others = (async () => {
    while (!done) {
      await new Promise((next) => setImmediate(next));
      turns++;
    }
  })();
  const compiled = await compile(plan, undefined, 0);
  const seen = turns;
  done = true;
  await others;
  expect(seen).toBeGreaterThanOrEqual(plan.screens.length);
  expect(compiled).toEqual(compileEdition(plan));
});

test('old editions are cleared away with the programs that nothing holds; the newest one never, however old', async () => {
  const [actor, other] = [await network(), await network()];
  await publish(actor);
  await book(actor, 'hall', 1);
  await publish(actor);
  // A program that no other network has.
  const second = await publishedPrograms(actor.networkId);
  await edit(actor, [{ kind: 'booking', id: 'b', set: { priority: 5 } }]);
  await publish(actor);
  const newest = await publishedPrograms(actor.networkId);
  await edit(other, [
    { kind: 'network', id: 'network', set: { defaultDurationMs: 7000, backdrop: { playlist: 'house' } } },
  ]);
  await publish(other);
  await rows("UPDATE editions SET published_at = now() - interval '500 days'");
  const soon = new Date();
  expect(await clearEditions(new Date(soon.getTime() - 200 * 86_400_000))).toMatchObject({ editions: 0 });
  expect(await clearEditions(soon)).toMatchObject({ editions: 0 });
  expect(await kept(actor)).toMatchObject({ editions: 200, days: 400 });
  expect(await keep(actor, { editions: 2 })).toMatchObject({ editions: 2, days: 400 });
  // As long as they are young enough, more are kept than that; and what one network says holds for no other.
  expect(await keep(actor, { days: 600 })).toMatchObject({ editions: 2, days: 600 });
  expect(await kept(other)).toMatchObject({ editions: 200, days: 400 });
  expect(await clearEditions(soon)).toMatchObject({ editions: 0 });
  await keep(actor, { days: 400 });
  await clearEditions(soon);
  expect((await editions(actor)).map((one) => one.number)).toEqual([3, 2]);
  for (const wrong of [{ editions: 0 }, { editions: 1.5 }, { days: 0 }, { days: 4001 }])
    await expect(keep(actor, wrong)).rejects.toMatchObject({ status: 422 });
  await keep(actor, { editions: 1 });
  await clearEditions(soon);
  expect((await editions(actor)).map((one) => one.number)).toEqual([3]);
  expect((await editions(other)).map((one) => one.number)).toEqual([1]);
  expect(await publishedPrograms(actor.networkId)).toEqual(newest);
  const left = new Set((await ProgramRow.findAll()).map((row) => row.hash));
  expect([...newest.values()].every((hash) => left.has(hash))).toBe(true);
  expect(left.has(second.get('hall') ?? '')).toBe(false);
  // Nor is there a part that no program has; and what is left can be read whole.
  const parts = await rows(
    'SELECT 1 FROM parts p WHERE NOT EXISTS (SELECT 1 FROM program_parts o WHERE o.part = p.hash)',
  );
  expect(parts).toEqual([]);
  for (const { hash, document } of await rows<{ hash: string; document: string }>('SELECT * FROM program_documents'))
    expect(sha256Hex(document)).toBe(hash);
  // A network goes on from there.
  await edit(actor, [{ kind: 'booking', id: 'b', remove: true }]);
  expect(await publish(actor)).toEqual({ number: 4 });
});

test('programs that were written in one piece are read, and get what is smaller, as those in parts do', async () => {
  const actor = await network();
  await publish(actor);
  const hashes = [...new Set((await publishedPrograms(actor.networkId)).values())];
  const inParts = await programsBy(hashes);
  // As a migration leaves what was there before.
  await rows(
    `WITH whole AS (INSERT INTO parts SELECT hash, document FROM program_documents WHERE hash = ANY($1) RETURNING hash),
       cut AS (DELETE FROM program_parts WHERE program = ANY($1))
     INSERT INTO program_parts SELECT hash, 9, hash FROM whole`,
    [hashes],
  );
  const inOne = await programsBy(hashes);
  expect([...inOne].map(([hash, { assets }]) => [hash, assets])).toEqual(
    hashes.map((hash) => [hash, inParts.get(hash)?.assets]).sort(),
  );
  for (const [hash, { parts }] of inOne) expect(sha256Hex(parts.join(''))).toBe(hash);
  for (const { parts, assets } of inOne.values()) expect(parts[0]).toBe(`{"assets":${canonicalJson(assets)}`);
});

test('an edition says what it is for; and its plan is told to its own network, as long as it is kept', async () => {
  const [actor, other] = [await network(), await network()];
  await publish(actor);
  await book(actor, 'hall');
  const change = await lastChange(actor.networkId);
  await expect(publishEdition(actor, change, { note: 'x'.repeat(501) })).rejects.toMatchObject({ status: 422 });
  await publishEdition(actor, change, { note: '  Winter timetable ' });
  expect((await editions(actor)).map(({ note }) => note)).toEqual(['Winter timetable', null]);
  expect((await editionPlan(actor, 1)).plan.bookings).toEqual([]);
  expect((await editionPlan(actor, 2)).plan.bookings.map(({ id }) => id)).toEqual(['b']);
  await expect(editionPlan(other, 2)).rejects.toMatchObject({ status: 404 });
  await rows('DELETE FROM editions WHERE network_id = $1 AND number = 1', [actor.networkId]);
  await expect(editionPlan(actor, 1)).rejects.toMatchObject({ status: 404 });
});
