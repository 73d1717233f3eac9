import { docket, editions, publishAgain, publishEdition, publishedPlan } from './editions';
import { dismissUpload, failUpload, libraryFile, mediaExtras, processUpload, thumbnailOf, uploads } from './library';
import { draftPlan, edit, lastChange, undo } from './plan';
import {
  collectToken,
  pairScreen,
  playerFile,
  playerOf,
  programText,
  screenStatuses,
  startPairing,
  unpairScreen,
} from './screens';
import { newNetwork, newPlan, useDatabase } from './tests/database';
import { picture, send } from './tests/files';

useDatabase();

/** Whatever one network asks for by another's ids, it is as if it were not there. */
test('one network can not read or touch another by any id', async () => {
  const [ours, theirs] = [await newNetwork(), await newNetwork()];
  await newPlan(theirs);
  const received = await send(theirs, 'Secret.jpg', await picture(123, 45));
  if (!('upload' in received)) throw new Error('known');
  await processUpload(received.upload.id);
  await edit(theirs, [
    { kind: 'playlist', id: 'house', set: { name: 'House', items: [{ media: 'secret' }] } },
    {
      kind: 'booking',
      id: 'b',
      add: { name: 'B', content: { playlist: 'house' }, where: 'all', created: '2026-01-01T00:00:00Z' },
    },
  ]);
  await edit(theirs, [{ kind: 'screen', id: 'extra', add: { name: 'Extra', site: 'quay', width: 5, height: 5 } }]);
  await publishEdition(theirs, await lastChange(theirs.networkId));
  const before = await draftPlan(theirs);
  const sha256 = before.plan.media[0]?.sha256 ?? '';
  const failing = await send(theirs, 'Other.jpg', await picture(31, 31));
  if (!('upload' in failing)) throw new Error('known');
  await failUpload(failing.upload.id, 'broken');
  const { deviceCode, userCode } = await startPairing('10.2.2.2');
  await pairScreen(theirs, 'hall', userCode, '10.2.2.3');
  const collected = await collectToken(deviceCode);
  const theirPlayer = await playerOf(typeof collected === 'string' ? '' : collected.token);
  if (!theirPlayer) throw new Error('no player');

  // Reading
  expect((await draftPlan(ours)).plan).toMatchObject({
    sites: [],
    screens: [],
    media: [],
    playlists: [],
    bookings: [],
  });
  expect([await uploads(ours), await editions(ours), await screenStatuses(ours)]).toEqual([[], [], []]);
  await expect(mediaExtras(ours, 'secret')).rejects.toMatchObject({ status: 404 });
  await expect(thumbnailOf(ours, sha256)).rejects.toMatchObject({ status: 404 });
  expect(await publishedPlan(ours)).toBeNull();
  expect((await docket(ours)).entries).toEqual([]);
  await expect(libraryFile(ours, sha256)).rejects.toMatchObject({ status: 404 });

  // Touching
  const changed = { name: 'Taken', site: 'quay', width: 1, height: 1 };
  await expect(edit(ours, [{ kind: 'screen', id: 'hall', set: changed }])).rejects.toMatchObject({ status: 404 });
  await expect(edit(ours, [{ kind: 'screen', add: changed }])).rejects.toMatchObject({ status: 422 });
  for (const [kind, id] of [
    ['screen', 'hall'],
    ['site', 'quay'],
    ['playlist', 'house'],
    ['media', 'secret'],
    ['booking', 'b'],
  ] as const)
    await expect(edit(ours, [{ kind, id, remove: true }])).rejects.toMatchObject({ status: 404 });
  expect(await undo(ours, 'undo')).toMatchObject({ about: null, changes: [] });
  await expect(publishAgain(ours, 1)).rejects.toMatchObject({ status: 404 });
  await expect(pairScreen(ours, 'hall', 'BCDF-GHJK', '10.2.2.4')).rejects.toMatchObject({ status: 404 });
  await expect(unpairScreen(ours, 'hall')).rejects.toMatchObject({ status: 404 });
  await expect(dismissUpload(ours, failing.upload.id)).rejects.toMatchObject({ status: 404 });

  // A player of ours asks for their program and files.
  const stranger = { ...theirPlayer, networkId: ours.networkId };
  const published = await publishedPlan(theirs);
  expect(published?.number).toBe(1);
  const { program } = await (await import('./screens')).targetOf(theirPlayer);
  expect(await programText(theirPlayer, program ?? '')).not.toBeNull();
  expect(await programText(stranger, program ?? '')).toBeNull();
  expect(await playerFile(theirPlayer, sha256)).not.toBeNull();
  expect(await playerFile(stranger, sha256)).toBeNull();

  expect(await draftPlan(theirs)).toEqual(before);
});
