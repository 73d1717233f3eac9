import { PairingRow, PlayerRow, publish, rows, subscribe } from '@/database';
import type { Report } from '@/protocol/schemas';
import { publishEdition, publishedPrograms } from '../editions';
import { processUpload } from '../library';
import type { Actor } from '../people';
import { draftPlan, edit, lastChange } from '../plan';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { picture, send } from '../tests/files';
import { readCode } from './codes';
import {
  collectToken,
  flushHeartbeats,
  heartbeat,
  hurryScreens,
  pairScreen,
  playerBackend,
  playerFile,
  playerOf,
  programText,
  screenLines,
  screenStatuses,
  startPairing,
  unpairScreen,
  type Player,
} from '.';

useDatabase();

const report = (values: Partial<Report> = {}): Report => ({
  state: 'playing',
  edition: 1,
  program: null,
  playing: null,
  download: null,
  clockOffsetMs: 0,
  storage: null,
  errors: [],
  software: 'test',
  ...values,
});

const CARD = { name: 'Card', created: '2026-01-01T00:00:00Z', when: {} };

/** A picture in the library. */
async function addMedia(actor: Actor, name: string): Promise<{ id: string; sha256: string }> {
  const received = await send(actor, `${name}.jpg`, await picture(64, 36, '#E3A008'));
  if ('upload' in received) await processUpload(received.upload.id);
  const found = (await draftPlan(actor)).plan.media.find((one) => one.name === name);
  return { id: found?.id ?? '', sha256: found?.sha256 ?? '' };
}

async function paired(screen = 'hall') {
  const actor = await newNetwork();
  await newPlan(actor);
  const { deviceCode, userCode } = await startPairing('10.1.1.1');
  await pairScreen(actor, screen, userCode, '10.1.1.2');
  const collected = await collectToken(deviceCode);
  if (typeof collected === 'string') throw new Error(collected);
  return { actor, token: collected.token, deviceCode, userCode };
}

test('from code to token: pending, then a token that is stored only as its hash', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const { deviceCode, userCode, expiresIn } = await startPairing('10.1.1.1');
  expect(expiresIn).toBe(900);
  expect(await collectToken(deviceCode)).toBe('pending');
  await pairScreen(actor, 'hall', userCode.toLowerCase(), '10.1.1.2');
  const collected = await collectToken(deviceCode);
  if (typeof collected === 'string') throw new Error(collected);
  expect(await playerOf(collected.token)).toMatchObject({
    networkId: actor.networkId,
    screen: { id: 'hall', name: 'Hall', width: 1920 },
  });
  expect(JSON.stringify(await PlayerRow.findAll())).not.toContain(collected.token);
  expect(await collectToken('not a device code')).toBe('expired');
});

test('a code is good once, and for fifteen minutes', async () => {
  const { actor, userCode } = await paired();
  await expect(pairScreen(actor, 'deck', userCode, '10.1.1.2')).rejects.toMatchObject({ status: 422 });
  const late = await startPairing('10.1.1.1');
  await rows("UPDATE pairings SET expires_at = now() - interval '1 second' WHERE user_code = $1", [
    readCode(late.userCode),
  ]);
  await expect(pairScreen(actor, 'deck', late.userCode, '10.1.1.2')).rejects.toMatchObject({ status: 422 });
  expect(await collectToken(late.deviceCode)).toBe('expired');
});

test('an answer that was lost on the way: the next one replaces it', async () => {
  const { token, deviceCode } = await paired();
  const again = await collectToken(deviceCode);
  if (typeof again === 'string') throw new Error(again);
  expect(again.token).not.toBe(token);
  expect(
    await PlayerRow.count({
      where: { screenId: (await PairingRow.findOne({ order: [['expiresAt', 'DESC']] }))?.screenId ?? '' },
    }),
  ).toBe(1);
});

test('a pairing that is sent again, since its answer was lost, is as sent once, and no guess', async () => {
  const { actor, userCode, token } = await paired();
  for (let i = 0; i < 25; i++) await pairScreen(actor, 'hall', userCode, '10.1.1.7');
  expect(await playerOf(token)).not.toBeNull();
  await expect(pairScreen(actor, 'deck', userCode, '10.1.1.7')).rejects.toMatchObject({ status: 422 });
});

test('wrong guesses are limited for the operator, right ones are not counted', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const right = async () => pairScreen(actor, 'hall', (await startPairing('10.9.9.8')).userCode, '10.9.9.9');
  for (let i = 0; i < 25; i++) await right();
  for (let i = 0; i < 20; i++)
    await expect(pairScreen(actor, 'hall', 'BBBB-BBBB', '10.9.9.9')).rejects.toMatchObject({ status: 422 });
  await expect(pairScreen(actor, 'hall', 'BBBB-BBBB', '10.9.9.9')).rejects.toMatchObject({ status: 429 });
  // Among refused guesses the right one is refused too: nobody learns which it was.
  await expect(right()).rejects.toMatchObject({ status: 429 });
});

test('pairing again replaces the hardware and keeps the screen; unpairing ends the token', async () => {
  const { actor, token } = await paired();
  const next = await startPairing('10.1.1.1');
  await pairScreen(actor, 'hall', next.userCode, '10.1.1.2');
  const collected = await collectToken(next.deviceCode);
  if (typeof collected === 'string') throw new Error(collected);
  expect(await PlayerRow.count({ where: { networkId: actor.networkId } })).toBe(1);
  await unpairScreen(actor, 'hall');
  await expect(unpairScreen(actor, 'hall')).rejects.toMatchObject({ status: 404 });
  expect(await PlayerRow.count({ where: { networkId: actor.networkId } })).toBe(0);
  expect(token).not.toBe(collected.token);
});

test('heartbeats are gathered and written together; troubles become sentences', async () => {
  const { actor, token } = await paired();
  const player = await playerOf(token);
  if (!player) throw new Error('no player');
  heartbeat(player, report({ clockOffsetMs: 5000 }));
  heartbeat(
    player,
    report({
      clockOffsetMs: 240_000,
      missing: { files: 2, bytes: 3.2e6, neededBy: Date.now() + 3_600_000 },
      storage: { usedBytes: 95e6, limitBytes: 100e6 },
      download: { doneBytes: 0, totalBytes: 30e6 },
      errors: [{ at: Date.now(), message: '"gale" can not be played here' }],
    }),
  );
  await flushHeartbeats();
  const [deck, hall] = await screenStatuses(actor);
  expect(deck).toMatchObject({ id: 'deck', state: 'unpaired', troubles: [] });
  expect(hall).toMatchObject({ id: 'hall', state: 'behind', download: { totalBytes: 30e6 } });
  expect(hall?.troubles).toEqual([
    'Not in the newest edition yet. Publish your changes.',
    'Clock 4 min slow; it plays by the server’s.',
    'Storage full: 25 MB short.',
    '2 files (3.2 MB) still to come, not needed yet.',
    '"gale" can not be played here',
  ]);
});

test('what a player tells of its line and its storage is told by its screen, to its own network', async () => {
  const [{ actor, token }, other] = await Promise.all([paired(), paired()]);
  const player = await playerOf(token);
  if (!player) throw new Error('not paired');
  expect(await screenLines(actor)).toEqual([]);
  heartbeat(player, report({ storage: null }));
  await flushHeartbeats();
  expect(await screenLines(actor)).toEqual([
    { id: 'hall', bytesPerSecond: null, freeBytes: null, kinds: null, codecs: null },
  ]);
  heartbeat(
    player,
    report({ kinds: ['image'], bytesPerSecond: 250_000, storage: { usedBytes: 4e6, limitBytes: 10e6 } }),
  );
  await flushHeartbeats();
  expect(await screenLines(actor)).toEqual([
    { id: 'hall', bytesPerSecond: 250_000, freeBytes: 6e6, kinds: ['image'], codecs: null },
  ]);
  expect(await screenLines(other.actor)).toEqual([]);
});

test('a heartbeat that the database does not take is thrown away alone: all others of its batch are written', async () => {
  const players = await Promise.all([paired(), paired(), paired(), paired(), paired()]);
  const known = await Promise.all(players.map(({ token }) => playerOf(token)));
  known.forEach((player, i) => {
    if (!player) throw new Error('not paired');
    // The schema of the wire refuses such a text: this is what stands behind it.
    heartbeat(player, report(i === 2 ? { errors: [{ at: 0, message: 'a\u0000b' }] } : {}));
  });
  await flushHeartbeats();
  const seen = await Promise.all(known.map((player) => PlayerRow.findByPk(player?.id ?? '', { rejectOnEmpty: true })));
  expect(seen.map((row) => row.lastSeen !== null)).toEqual([true, true, false, true, true]);
});

describe('rights end with their reason', () => {
  beforeAll(async () => {
    // Until this process listens: what is told before is not heard.
    let heard = false;
    const stop = subscribe(({ kind }) => (heard ||= kind === 'hurry'));
    while (!heard) {
      await publish({ kind: 'hurry', network: '', players: [] });
      await new Promise((done) => setTimeout(done, 20));
    }
    stop();
  });
  const streamOf = (player: Player) => {
    const told: string[] = [];
    const stop = playerBackend.onChange(player, (what) => told.push(what));
    return { told, stop };
  };
  const known = async (token: string) => {
    const player = await playerOf(token);
    if (!player) throw new Error('not paired');
    return player;
  };
  const until = async (look: () => unknown) => {
    for (let tries = 0; tries < 200 && !(await look()); tries++) await new Promise((done) => setTimeout(done, 20));
    expect(await look()).toBeTruthy();
  };

  test('a token that was replaced is unknown at once, and its stream ends', async () => {
    const { token, deviceCode } = await paired();
    const { told, stop } = streamOf(await known(token));
    const again = await collectToken(deviceCode);
    if (typeof again === 'string') throw new Error(again);
    await until(() => told.includes('unpaired'));
    expect(await playerOf(token)).toBeNull();
    expect(await playerOf(again.token)).not.toBeNull();
    stop();
  });

  test('who is asked to try again hears it on its stream, and nobody of another network does', async () => {
    const [own, other] = await Promise.all([paired(), paired()]);
    const [first, second] = [streamOf(await known(own.token)), streamOf(await known(other.token))];
    expect(await hurryScreens(own.actor, ['hall', 'deck', 'none'])).toEqual({ asked: 1 });
    await until(() => first.told.includes('hurry'));
    expect(await hurryScreens(other.actor, [])).toEqual({ asked: 0 });
    await unpairScreen(other.actor, 'hall');
    await until(() => second.told.includes('unpaired'));
    expect(second.told).not.toContain('hurry');
    expect(await hurryScreens(other.actor, ['hall'])).toEqual({ asked: 0 });
    first.stop();
    second.stop();
  });

  test('a screen that is removed takes its player with it', async () => {
    const { actor, token } = await paired();
    const { told, stop } = streamOf(await known(token));
    await edit(actor, [{ kind: 'screen', id: 'hall', remove: true }]);
    await until(() => told.includes('unpaired'));
    expect(await playerOf(token)).toBeNull();
    stop();
  });

  test('a screen that comes back has its player again: by the old token, or by a new one if it waits already', async () => {
    const { actor, token } = await paired();
    const { plan } = await draftPlan(actor);
    const { id: _, ...document } = plan.screens.find(({ id }) => id === 'hall') ?? { id: '' };
    const remove = () => edit(actor, [{ kind: 'screen', id: 'hall', remove: true }]);
    const bringBack = () => edit(actor, [{ kind: 'screen', id: 'hall', add: document as never }]);
    await remove();
    await bringBack();
    expect((await playerOf(token))?.screen.id).toBe('hall');
    await remove();
    const { deviceCode } = await startPairing('10.1.1.1', undefined, token);
    expect(await collectToken(deviceCode)).toBe('pending');
    await bringBack();
    const again = (await collectToken(deviceCode)) as { token: string };
    expect((await playerOf(again.token))?.screen.id).toBe('hall');
    expect(await playerOf(token)).toBeNull();
  });

  test('a player of a removed screen that was given another screen doesn’t come back to it', async () => {
    const { actor, token } = await paired();
    const { plan } = await draftPlan(actor);
    const { id: _, ...document } = plan.screens.find(({ id }) => id === 'hall') ?? { id: '' };
    await edit(actor, [{ kind: 'screen', id: 'hall', remove: true }]);
    const { deviceCode, userCode } = await startPairing('10.1.1.1', undefined, token);
    await pairScreen(actor, 'deck', userCode, '10.1.1.2');
    const other = (await collectToken(deviceCode)) as { token: string };
    await edit(actor, [{ kind: 'screen', id: 'hall', add: document as never }]);
    expect((await playerOf(other.token))?.screen.id).toBe('deck');
    expect((await screenStatuses(actor)).find(({ id }) => id === 'hall')?.state).toBe('unpaired');
  });

  test('two players that use one token in turn are told apart, and said; one that starts again is none', async () => {
    const { actor, token } = await paired();
    const player = await known(token);
    const beat = async (life: string) => {
      heartbeat(player, report({ life }));
      await flushHeartbeats();
      const hall = (await screenStatuses(actor)).find((one) => one.id === 'hall');
      return hall?.troubles.some((one) => one.includes('Two players')) ?? false;
    };
    expect([await beat('a'), await beat('a'), await beat('b'), await beat('b'), await beat('c')]).toEqual([
      ...[false, false, false, false, false],
    ]);
    expect([await beat('b'), await beat('c')]).toEqual([true, true]);
  });

  test("a player gets its own screen's programs and files, and not those of the next screen", async () => {
    const { actor, token } = await paired();
    const media = await addMedia(actor, 'deck-card');
    await edit(actor, [{ kind: 'booking', id: 'card', add: { ...CARD, content: { media: media.id }, where: 'deck' } }]);
    await publishEdition(actor, await lastChange(actor.networkId));
    const hall = await known(token);
    const programs = await publishedPrograms(actor.networkId);
    expect(await programText(hall, programs.get('hall') ?? '')).toContain('lanternpost/program');
    expect(await programText(hall, programs.get('deck') ?? '')).toBeNull();
    expect(await playerFile(hall, media.sha256)).toBeNull();
    const next = await startPairing('10.1.1.1');
    await pairScreen(actor, 'deck', next.userCode, '10.1.1.2');
    const collected = await collectToken(next.deviceCode);
    if (typeof collected === 'string') throw new Error(collected);
    expect(await playerFile(await known(collected.token), media.sha256)).toMatchObject({ type: 'image/jpeg' });
  });
});
