import { rows, UploadRow } from '@/database';
import { keep } from '../editions';
import { draftPlan, edit, undo } from '../plan';
import type { Actor } from '../people';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { film, picture, stream } from '../tests/files';
import {
  beginUpload,
  bringBack,
  cleanUp,
  clearVersions,
  completeUpload,
  libraryFile,
  makePart,
  mediaExtras,
  processUpload,
  uploads,
  writePart,
} from '.';

useDatabase();

const DAY = 86_400_000;

/** Sends a file, as the new version of another where one is named. */
async function send(actor: Actor, name: string, bytes: Buffer, replaces: string | null = null): Promise<void> {
  const id = await beginUpload(actor, { name, bytes: bytes.length, batch: null, replaces });
  await makePart(id);
  await writePart(id, 0, stream(bytes));
  const received = await completeUpload(actor, id);
  if ('upload' in received) await processUpload(received.upload.id);
}
const media = async (actor: Actor, id: string) => (await draftPlan(actor)).plan.media.find((one) => one.id === id);
const sha = async (actor: Actor, id: string) => (await media(actor, id))?.sha256 ?? '';
const versions = async (actor: Actor, id: string) => (await mediaExtras(actor, id)).versions;

test('a file is replaced: what uses it follows, what was said of it stays, and it can be brought back', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  await send(actor, 'Tariff.jpg', await picture(640, 360));
  await edit(actor, [
    { kind: 'media', id: 'tariff', set: { tags: ['fares'], durationMs: 7000, focus: [0.25, 0.5] } },
    { kind: 'playlist', id: 'house', set: { items: [{ media: 'tariff' }] } },
  ]);
  const before = await media(actor, 'tariff');
  await send(actor, 'Tariff, from May.jpg', await picture(1280, 720), 'tariff');
  const after = await media(actor, 'tariff');
  expect(after).toMatchObject({ name: 'Tariff', tags: ['fares'], durationMs: 7000, focus: [0.25, 0.5], width: 1280 });
  expect(after?.sha256).not.toBe(before?.sha256);
  expect((await draftPlan(actor)).plan.media).toHaveLength(1);
  const [version] = await versions(actor, 'tariff');
  expect(version).toMatchObject({ file: before, by: actor.name });
  // Its small picture is seen beside it.
  expect(await libraryFile(actor, before?.sha256 ?? '')).toMatchObject({ type: 'image/jpeg' });

  await bringBack(actor, 'tariff', version?.id ?? '');
  expect(await media(actor, 'tariff')).toEqual(before);
  expect((await versions(actor, 'tariff')).map(({ file }) => file.sha256)).toEqual([after?.sha256]);
  await undo(actor, 'undo');
  expect(await media(actor, 'tariff')).toEqual(after);
  await undo(actor, 'undo');
  expect(await media(actor, 'tariff')).toEqual(before);
  await undo(actor, 'redo');
  expect(await media(actor, 'tariff')).toEqual(after);
});

test('nobody replaces or brings back what is another network’s', async () => {
  const [actor, other] = [await newNetwork(), await newNetwork()];
  await send(actor, 'Quay.jpg', await picture(64, 36));
  await expect(beginUpload(other, { name: 'Q.jpg', bytes: 9, batch: null, replaces: 'quay' })).rejects.toMatchObject({
    status: 404,
  });
  await send(actor, 'Quay 2.jpg', await picture(65, 36), 'quay');
  const [version] = await versions(actor, 'quay');
  await send(other, 'Quay.jpg', await picture(66, 36));
  await expect(bringBack(other, 'quay', version?.id ?? '')).rejects.toMatchObject({ status: 404 });
  await expect(libraryFile(other, version?.file.sha256 ?? '')).rejects.toMatchObject({ status: 404 });
});

test('what can’t take the place of a file says why, and changes nothing', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  await send(actor, 'Crossing.mp4', film(3));
  await edit(actor, [{ kind: 'playlist', id: 'house', set: { items: [{ media: 'crossing', clip: [500, 2500] }] } }]);
  const before = await media(actor, 'crossing');
  await send(actor, 'Short.mp4', film(2), 'crossing');
  expect(await uploads(actor)).toMatchObject([
    {
      state: 'failed',
      replaces: 'crossing',
      error: 'In the playlist “House”: “Crossing” ends at 2 s. End the clip there or before.',
    },
  ]);
  await send(actor, 'Still.jpg', await picture(50, 50), 'crossing');
  expect((await uploads(actor))[0]?.error).toContain('only a video has clips');
  expect(await media(actor, 'crossing')).toEqual(before);
  expect(await versions(actor, 'crossing')).toEqual([]);
  // Without the cut both can.
  await edit(actor, [{ kind: 'playlist', id: 'house', set: { items: [{ media: 'crossing' }] } }]);
  await send(actor, 'Still.jpg', await picture(50, 50), 'crossing');
  const still = await media(actor, 'crossing');
  expect(still).toMatchObject({ kind: 'image', width: 50 });
  expect(still).not.toHaveProperty('durationMs');
});

test('the same file again changes nothing; bytes that another file has can stand in both', async () => {
  const actor = await newNetwork();
  const [one, two] = [await picture(40, 40), await picture(41, 40)];
  await send(actor, 'One.jpg', one);
  await send(actor, 'Two.jpg', two);
  await send(actor, 'One.jpg', one, 'one');
  expect(await versions(actor, 'one')).toEqual([]);
  await send(actor, 'Two.jpg', two, 'one');
  expect(await sha(actor, 'one')).toBe(await sha(actor, 'two'));
});

test('a file that is removed while its new version is on its way becomes a file of its own', async () => {
  const actor = await newNetwork();
  await send(actor, 'Gone.jpg', await picture(30, 30));
  const bytes = await picture(31, 30);
  const id = await beginUpload(actor, { name: 'Better.jpg', bytes: bytes.length, batch: null, replaces: 'gone' });
  await makePart(id);
  await writePart(id, 0, stream(bytes));
  await edit(actor, [{ kind: 'media', id: 'gone', remove: true }]);
  const received = await completeUpload(actor, id);
  if (!('upload' in received)) throw new Error('the library knew it');
  await processUpload(received.upload.id);
  expect((await draftPlan(actor)).plan.media.map((file) => file.id)).toEqual(['better']);
  expect(await UploadRow.findByPk(id)).toMatchObject({ state: 'ready' });
});

test('earlier versions are kept as long as the network says, and their bytes are freed then', async () => {
  const actor = await newNetwork();
  await send(actor, 'Menu.jpg', await picture(90, 60));
  const first = await sha(actor, 'menu');
  await send(actor, 'Menu 2.jpg', await picture(91, 60), 'menu');
  await keep(actor, { days: 30 });
  await rows("UPDATE media_versions SET replaced_at = now() - interval '29 days'");
  await rows("UPDATE changes SET at = now() - interval '29 days'");
  await rows("UPDATE files SET created_at = now() - interval '60 days'");
  expect(await clearVersions(new Date())).toBe(0);
  await cleanUp(new Date());
  expect(await libraryFile(actor, first)).toMatchObject({ sha256: first });
  const later = new Date(Date.now() + 2 * DAY);
  expect(await clearVersions(later)).toBe(1);
  expect((await cleanUp(later)).files).toBeGreaterThanOrEqual(2);
  expect(await rows('SELECT 1 FROM files WHERE sha256 = $1', [first])).toEqual([]);
  expect(await versions(actor, 'menu')).toEqual([]);
});
