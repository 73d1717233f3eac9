import { parseDate, type LocalDate } from '@/core/when';
import { publishEdition, screenDay } from '../editions';
import type { Actor } from '../people';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { addPlaylistFile, draftPlan, edit, lastChange, playlistFile, undo } from '.';

useDatabase();

const FILE = { kind: 'image', width: 10, height: 10, bytes: 1, added: '2026-01-01T00:00:00Z' } as const;

async function network(): Promise<Actor> {
  const actor = await newNetwork();
  await newPlan(actor);
  await edit(actor, [
    { kind: 'media', id: 'flag', add: { name: 'House flag', ...FILE } },
    { kind: 'media', id: 'fares', add: { name: 'Fares', ...FILE } },
    { kind: 'media', id: 'old', add: { name: 'Old', ...FILE, archived: true } },
    { kind: 'playlist', id: 'house', set: { items: [{ media: 'flag', durationMs: 5_000 }, { media: 'fares' }] } },
  ]);
  return actor;
}

test('a playlist goes out as a file and comes in again, under a name that is free, as one act', async () => {
  const actor = await network();
  for (const format of ['m3u8', 'xspf'] as const) {
    const { name, text } = await playlistFile(actor, 'house', format);
    expect(name).toBe(`house.${format}`);
    const read = await addPlaylistFile(actor, name, text);
    expect(read).toMatchObject({ name: 'House (2)', items: 2, missing: [] });
    const { plan } = await draftPlan(actor);
    expect(plan.playlists.find(({ id }) => id === read.id)?.items).toMatchObject([
      { media: 'flag', durationMs: 5_000 },
      { media: 'fares' },
    ]);
    await undo(actor, 'undo');
    expect((await draftPlan(actor)).plan.playlists).toHaveLength(1);
  }
});

test('what the library does not have is told; where it has nothing of it, nothing is made', async () => {
  const [actor, other] = [await network(), await newNetwork()];
  const text = '#EXTM3U\nflag.png\nold.png\n/etc/passwd\n';
  expect(await addPlaylistFile(actor, 'Quay list.m3u', text)).toMatchObject({
    ...{ name: 'Quay list', items: 1 },
    missing: [{ location: 'old.png' }, { location: '/etc/passwd', place: 'line 4' }],
  });
  await expect(addPlaylistFile(other, 'Quay list.m3u', text)).rejects.toMatchObject({
    status: 422,
    message: 'None of the 3 files in this playlist is in your library. Upload them, then read it again.',
  });
  expect((await draftPlan(other)).plan.playlists).toEqual([]);
  await expect(playlistFile(other, 'house', 'm3u8')).rejects.toMatchObject({ status: 404 });
  await expect(addPlaylistFile(actor, 'x.xspf', '<a/>')).rejects.toMatchObject({ status: 422 });
});

test('a day of a screen is told by the newest edition, not by the draft', async () => {
  const [actor, other] = [await network(), await newNetwork()];
  const day = parseDate('2026-12-01') as LocalDate;
  await expect(screenDay(actor, 'hall', day)).rejects.toMatchObject({ status: 404 });
  await edit(actor, [{ kind: 'network', id: 'network', set: { defaultDurationMs: 7_000 } }]);
  await publishEdition(actor, await lastChange(actor.networkId));
  await edit(actor, [{ kind: 'screen', id: 'hall', set: { name: 'Other' } }]);
  expect(await screenDay(actor, 'hall', day)).toContain('<meta name="title" content="Hall, 2026-12-01"/>');
  expect(await screenDay(actor, 'hall', null)).toContain('<meta name="title" content="Hall, ');
  await expect(screenDay(actor, 'nowhere', day)).rejects.toMatchObject({ status: 404 });
  await expect(screenDay(other, 'hall', day)).rejects.toMatchObject({ status: 404 });
});
