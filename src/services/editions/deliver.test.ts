import sharp from 'sharp';
import { rows } from '@/database';
import { failRendition, makeRendition, processUpload } from '../library';
import { storedPath } from '../library/store';
import type { Actor } from '../people';
import { edit, lastChange } from '../plan';
import { playerFile, programText, targetOf, type Player } from '../screens';
import { newNetwork, useDatabase } from '../tests/database';
import { pairedPlayer } from '../tests/players';
import { film, send } from '../tests/files';
import { clearEditions, deliverAgain, deliveredPrograms, docket, publishEdition, publishedPrograms } from '.';
import type { ProgramDocument } from '@/core/edition';

useDatabase();

/** A picture of noise, so that fewer pixels are fewer bytes. */
const photo = (width: number, height: number) =>
  sharp({
    create: { width, height, channels: 3, background: '#888', noise: { type: 'gaussian', mean: 128, sigma: 40 } },
  })
    .jpeg({ quality: 95 })
    .toBuffer();

let networks = 0;

/** A pixel wall, a large and a small screen, and a playlist with a photograph, a film and a small picture. */
async function network(): Promise<Actor> {
  const actor = await newNetwork();
  for (const [name, bytes] of [
    ['Photo.jpg', await photo(1920, 1080)],
    // Renditions are known by the bytes: each network has a film of its own.
    ['Film.mp4', film(++networks, '1280x720')],
    ['Small.jpg', await photo(100, 50)],
  ] as const) {
    const received = await send(actor, name, bytes);
    if ('upload' in received) await processUpload(received.upload.id);
  }
  await edit(actor, [
    { kind: 'site', id: 'quay', add: { name: 'Quay', timeZone: 'Europe/Oslo', tags: [] } },
    { kind: 'screen', id: 'wall', add: { name: 'Wall', site: 'quay', width: 384, height: 192, tags: [] } },
    { kind: 'screen', id: 'hall', add: { name: 'Hall', site: 'quay', width: 1920, height: 1080, tags: [] } },
    {
      kind: 'playlist',
      id: 'house',
      add: { name: 'House', items: ['photo', 'film', 'small'].map((media) => ({ media })) },
    },
    { kind: 'site', id: 'quay', set: { backdrop: { playlist: 'house' } } },
  ]);
  await publishEdition(actor, await lastChange(actor.networkId));
  return actor;
}

interface Wanted {
  asset: string;
  width: number;
  height: number;
}
/** What waits to be made, the widest first. */
const wanted = () =>
  rows<Wanted>(
    'SELECT asset_sha256 AS asset, width, height FROM renditions WHERE sha256 IS NULL AND error IS NULL ORDER BY width DESC, height',
  );
async function makeAll(actor: Actor): Promise<void> {
  for (const one of await wanted()) await makeRendition(one);
  await deliverAgain(actor.networkId);
}

/** What a player gets, once it has heard of what is out. */
async function program(of: Player): Promise<ProgramDocument> {
  const out = (await deliveredPrograms(of.networkId)).get(of.screen.id);
  let hash: string | null = null;
  while (hash !== out) {
    ({ program: hash } = await targetOf(of));
    await new Promise(setImmediate);
  }
  return JSON.parse((await programText(of, hash ?? '')) ?? 'null') as ProgramDocument;
}
const sizes = ({ assets }: ProgramDocument) =>
  Object.fromEntries(
    Object.entries(assets).map(([id, asset]) => [id, asset.kind === 'sound' ? null : [asset.width, asset.height]]),
  );

test('players get what their screens need, when it is made; the plan, the docket and what is seen stay the same', async () => {
  const actor = await network();
  const before = await publishedPrograms(actor.networkId);
  expect(await wanted()).toMatchObject([
    { width: 384, height: 216 },
    { width: 384, height: 216 },
  ]);
  const [wall, hall] = [await pairedPlayer(actor, 'wall'), await pairedPlayer(actor, 'hall')];
  const own = { photo: [1920, 1080], film: [1280, 720], small: [100, 50] };
  expect([sizes(await program(wall)), sizes(await program(hall))]).toEqual([own, own]);
  await makeAll(actor);
  const given = await program(wall);
  expect([sizes(given), sizes(await program(hall))]).toEqual([
    { photo: [384, 216], film: [384, 216], small: [100, 50] },
    own,
  ]);
  const { photo: still, film: moving } = given.assets;
  // Edges matter on a pixel wall.
  expect(still?.type).toBe('image/png');
  expect(await playerFile(wall, still?.sha256 ?? '')).toMatchObject({ bytes: still?.bytes });
  expect(await playerFile(hall, still?.sha256 ?? '')).toBeNull();
  expect(await sharp(storedPath(still?.sha256 ?? '')).metadata()).toMatchObject({ width: 384, height: 216 });
  expect(moving).toMatchObject({ kind: 'video', type: 'video/mp4', width: 384, height: 216 });
  const { assets: _, ...shown } = given;
  const { assets: __, ...planned } = JSON.parse(
    (await programText(wall, before.get('wall') ?? '')) ?? 'null',
  ) as ProgramDocument;
  expect(shown).toEqual(planned);
  expect(await publishedPrograms(actor.networkId)).toEqual(before);
  expect(await docket(actor)).toMatchObject({ entries: [], screens: [] });
});

test('the next edition delivers what there is, also where it changes nothing of a screen', async () => {
  const actor = await network();
  await makeAll(actor);
  const first = await deliveredPrograms(actor.networkId);
  await edit(actor, [{ kind: 'screen', id: 'hall', set: { backdrop: { media: 'small' } } }]);
  await publishEdition(actor, await lastChange(actor.networkId));
  const second = await deliveredPrograms(actor.networkId);
  expect(second.get('wall')).toBe(first.get('wall'));
  expect(second.get('wall')).not.toBe((await publishedPrograms(actor.networkId)).get('wall'));
});

test('what is shown pixel for pixel comes as it is, and a rendition keeps the focus of its file', async () => {
  const actor = await network();
  const items = [{ media: 'photo', fit: 'exact' as const }, { media: 'film' }];
  await edit(actor, [
    { kind: 'media', id: 'film', set: { focus: [0.1, 0.2] } },
    { kind: 'playlist', id: 'exact', add: { name: 'Exact', items } },
    { kind: 'screen', id: 'wall', set: { backdrop: { playlist: 'exact' } } },
  ]);
  await publishEdition(actor, await lastChange(actor.networkId));
  await makeAll(actor);
  const given = await program(await pairedPlayer(actor, 'wall'));
  expect(sizes(given)).toMatchObject({ photo: [1920, 1080], film: [384, 216] });
  expect(given.assets.film).toMatchObject({ focus: [0.1, 0.2] });
});

test('a screen of a new size makes what is missing, and shows the nearest larger one until that is there', async () => {
  const actor = await network();
  await makeAll(actor);
  await edit(actor, [{ kind: 'screen', id: 'wall', set: { width: 192, height: 96 } }]);
  await publishEdition(actor, await lastChange(actor.networkId));
  const wall = await pairedPlayer(actor, 'wall');
  expect(sizes(await program(wall))).toMatchObject({ photo: [384, 216], film: [384, 216] });
  expect(await wanted()).toMatchObject([
    { width: 192, height: 108 },
    { width: 192, height: 108 },
  ]);
  await makeAll(actor);
  expect(sizes(await program(wall))).toMatchObject({ photo: [192, 108], film: [192, 108] });
});

test('what can’t be made leaves the file itself; what became of programs that nobody gets is cleared away', async () => {
  const actor = await network();
  for (const one of await wanted()) await failRendition(one);
  await deliverAgain(actor.networkId);
  expect(await deliveredPrograms(actor.networkId)).toEqual(await publishedPrograms(actor.networkId));
  expect(await wanted()).toEqual([]);
  await clearEditions(new Date());
  const wall = await pairedPlayer(actor, 'wall');
  expect(sizes(await program(wall))).toMatchObject({ photo: [1920, 1080] });
});

test('delivered programs are kept as long as an edition delivers them', async () => {
  const actor = await network();
  await makeAll(actor);
  await clearEditions(new Date());
  const wall = await pairedPlayer(actor, 'wall');
  expect(sizes(await program(wall))).toMatchObject({ photo: [384, 216] });
});
