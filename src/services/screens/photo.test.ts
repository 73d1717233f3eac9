import sharp from 'sharp';
import { rows } from '@/database';
import { screenHealth } from '../health';
import { edit, undo } from '../plan';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { refusal } from '../tests/refusal';
import { clearPhotos, deleteScreenPhoto, screenPhoto, setScreenPhoto } from '.';

useDatabase();

const DAY_MS = 86_400_000;

/** A photo as a phone makes it: large, on its side, and with the place where it was taken. */
const fromPhone = () =>
  sharp({ create: { width: 3000, height: 2000, channels: 3, background: '#357' } })
    .jpeg()
    .withMetadata({ orientation: 6 })
    .withExifMerge({ IFD3: { GPSLatitude: '62/1 1/1 0/1' } })
    .toBuffer();

async function network() {
  const actor = await newNetwork();
  await newPlan(actor);
  return actor;
}

test('a photo is kept small, upright and without the place where it was taken; the next one replaces it', async () => {
  const actor = await network();
  expect((await screenHealth(actor, 'hall')).photo).toBeNull();
  const added = new Date();
  const photo = await fromPhone();
  expect((await sharp(photo).metadata()).exif?.toString('latin1')).toContain('Exif');
  await setScreenPhoto(actor, 'hall', photo, added);
  const { width, height, format, exif, orientation } = await sharp(await screenPhoto(actor, 'hall')).metadata();
  expect({ width, height, format, exif, orientation }).toEqual({
    ...{ width: 1067, height: 1600, format: 'jpeg', exif: undefined, orientation: undefined },
  });
  expect((await screenHealth(actor, 'hall')).photo).toBe(added.toISOString());
  await setScreenPhoto(actor, 'hall', await fromPhone());
  expect(await rows('SELECT 1 FROM screen_photos WHERE network_id = $1', [actor.networkId])).toHaveLength(1);
  await deleteScreenPhoto(actor, 'hall');
  expect(await refusal(screenPhoto(actor, 'hall'))).toMatch(/^404/);
});

test('what isn’t a picture, another network’s screen and none are refused, and nothing is stored', async () => {
  const [actor, other] = [await network(), await newNetwork()];
  const photo = await fromPhone();
  expect(await refusal(setScreenPhoto(actor, 'hall', Buffer.from('<svg/>')))).toMatch(/^422 This isn’t a picture/);
  expect(await refusal(setScreenPhoto(actor, 'hall', photo.subarray(0, 4000)))).toMatch(/^422 This picture is damaged/);
  expect(await refusal(setScreenPhoto(other, 'hall', photo))).toMatch(/^404/);
  await setScreenPhoto(actor, 'hall', photo);
  expect(await refusal(screenPhoto(other, 'hall'))).toMatch(/^404/);
  expect(await refusal(deleteScreenPhoto(other, 'hall'))).toMatch(/^404/);
  // Who may only look sees it, and changes nothing.
  const viewer = { ...actor, may: [] };
  expect(await refusal(setScreenPhoto(viewer, 'hall', photo))).toMatch(/^403/);
  expect(await refusal(deleteScreenPhoto(viewer, 'hall'))).toMatch(/^403/);
  expect(await screenPhoto(viewer, 'hall')).not.toHaveLength(0);
});

test('an undo brings a deleted screen back with its photo; a month later it is gone', async () => {
  const actor = await network();
  await setScreenPhoto(actor, 'deck', await fromPhone(), new Date(Date.now() - 90 * DAY_MS));
  await edit(actor, [{ kind: 'screen', id: 'deck', remove: true }]);
  await clearPhotos(new Date(Date.now() + 29 * DAY_MS));
  await undo(actor, 'undo');
  expect(await screenPhoto(actor, 'deck')).not.toHaveLength(0);
  await edit(actor, [{ kind: 'screen', id: 'deck', remove: true }]);
  expect(await clearPhotos(new Date(Date.now() + 31 * DAY_MS))).toBe(1);
});
