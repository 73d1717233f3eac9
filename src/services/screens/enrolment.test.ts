import { Refusal } from '@/core/refusal';
import { rows } from '@/database';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import {
  collectToken,
  endEnrolmentKey,
  giveScreens,
  makeEnrolmentKey,
  pairScreen,
  playerOf,
  sendAway,
  startPairing,
  tray,
} from '.';

useDatabase();

const HERE = '192.0.2.7';

async function network(most = 2) {
  const actor = await newNetwork();
  await newPlan(actor);
  const made = await makeEnrolmentKey(actor, { name: 'Boxes for the north', most, days: 7 });
  const start = (serial: string) => startPairing(HERE, { key: made.key, serial, software: 'box 1' });
  const numbers = async () => (await tray(actor)).waiting.map(({ number, serial }) => `${number} ${serial}`);
  return { actor, made, start, numbers };
}
const status = (error: unknown) => (error instanceof Refusal ? error.status : error);

test('players with a key wait under their numbers, and get their screens and tokens; the same device has the same number', async () => {
  const { actor, start, numbers } = await network();
  const [first, second] = [await start('SN-1'), await start('SN-2')];
  expect([first.number, second.number]).toEqual([1, 2]);
  // It was switched off and on: its earlier secret is worth nothing now.
  const again = await start('SN-1');
  expect(again.number).toBe(1);
  expect(await collectToken(first.deviceCode)).toBe('expired');
  expect(await collectToken(again.deviceCode)).toBe('pending');
  expect(await numbers()).toEqual(['1 SN-1', '2 SN-2']);
  const [one, two] = (await tray(actor)).waiting;
  const given = [
    { waiting: one?.id ?? '', screen: 'hall' },
    { waiting: two?.id ?? '', screen: 'nowhere' },
  ];
  expect((await giveScreens(actor, given)).map(({ error }) => error)).toEqual([
    null,
    'Your network has no such screen. It may have been deleted.',
  ]);
  expect(await numbers()).toEqual(['2 SN-2']);
  const collected = await collectToken(again.deviceCode);
  expect(collected).toMatchObject({ token: expect.any(String) });
  expect(typeof collected === 'object' && (await playerOf(collected.token))?.screen.id).toBe('hall');
  // Said again, since the answer was lost on the way; another screen for it is too late.
  expect((await giveScreens(actor, given.slice(0, 1)))[0]?.error).toBeNull();
  expect((await giveScreens(actor, [{ waiting: one?.id ?? '', screen: 'deck' }]))[0]?.error).toContain(
    'no longer waits',
  );
});

test('a key is for so many players, also if they come at once; one that is unknown, over or ended lets none in', async () => {
  const { actor, made, start } = await network(2);
  const came = await Promise.allSettled(['a', 'b', 'c', 'd'].map(start));
  const reasons = came.flatMap((one) => (one.status === 'rejected' ? [status(one.reason)] : []));
  expect(reasons).toEqual([403, 403]);
  expect((await tray(actor)).waiting.map(({ number }) => number)).toEqual([1, 2]);
  expect((await tray(actor)).keys).toMatchObject([{ most: 2, used: 2 }]);
  // Who was there already may come again.
  const [waiting] = (await tray(actor)).waiting;
  const known = await start(waiting?.serial ?? '');
  await endEnrolmentKey(actor, made.id);
  expect(await collectToken(known.deviceCode)).toBe('expired');
  expect(await tray(actor)).toEqual({ waiting: [], keys: [] });
  await expect(start(waiting?.serial ?? '').catch(status)).resolves.toBe(403);
  const over = await network();
  await rows("UPDATE enrolment_keys SET expires_at = now() - interval '1 second' WHERE id = $1", [over.made.id]);
  await expect(over.start('a').catch(status)).resolves.toBe(403);
});

test('a player that is removed does not come back by its key, and takes no place from others', async () => {
  const { actor, start, numbers } = await network(2);
  const first = await start('SN-1');
  await sendAway(actor, (await tray(actor)).waiting[0]?.id ?? '');
  expect(await collectToken(first.deviceCode)).toBe('expired');
  await expect(start('SN-1').catch(status)).resolves.toBe(403);
  await start('SN-2');
  expect(await numbers()).toEqual(['1 SN-2']);
  expect((await tray(actor)).keys[0]?.used).toBe(2);
});

test('another network sees none of it: it can neither give screens nor send away, nor type its code', async () => {
  const { actor, start, made } = await network();
  const other = await newNetwork();
  await newPlan(other);
  const waiting = await start('SN-1');
  const [player] = (await tray(actor)).waiting;
  expect(await tray(other)).toEqual({ waiting: [], keys: [] });
  expect((await giveScreens(other, [{ waiting: player?.id ?? '', screen: 'hall' }]))[0]?.error).toContain(
    'no longer waits',
  );
  await expect(sendAway(other, player?.id ?? '').catch(status)).resolves.toBe(404);
  await expect(endEnrolmentKey(other, made.id).catch(status)).resolves.toBe(404);
  await expect(pairScreen(other, 'hall', waiting.userCode, HERE).catch(status)).resolves.toBe(422);
  expect(await collectToken(waiting.deviceCode)).toBe('pending');
  // Its own people may type the code as well.
  await pairScreen(actor, 'hall', waiting.userCode, HERE);
  expect(await collectToken(waiting.deviceCode)).toMatchObject({ token: expect.any(String) });
});
