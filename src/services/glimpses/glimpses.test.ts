import { execFile } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import sharp from 'sharp';
import { HOUR, MINUTE } from '@/core/instant';
import { rows, transaction } from '@/database';
import { processUpload } from '../library';
import type { Actor } from '../people';
import { fireCue } from '../cues';
import { edit, lastChange } from '../plan';
import { publishEdition } from '../editions';
import { playerBackend, playerOf, screenStatuses, targetOf, type Player } from '../screens';
import { newNetwork, useDatabase } from '../tests/database';
import { refusal } from '../tests/refusal';
import { picture as plainPicture, send } from '../tests/files';
import { pairedPlayer } from '../tests/players';
import {
  clearGlimpses,
  compareGlimpse,
  glimpsePicture,
  glimpsesOfScreen,
  newestGlimpses,
  takeGlimpse,
  watchScreens,
} from '.';

useDatabase();

const RED = '#c82828';
/** A picture of two colours, wide as the hall's screen is. */
const picture = (colour: string, width = 640, height = 360) =>
  sharp({ create: { width, height, channels: 3, background: '#1b2330' } })
    .composite([{ input: { create: { width: width / 2, height, channels: 3, background: colour } }, left: 0, top: 0 }])
    .jpeg()
    .toBuffer();

/** A video of four seconds: two red, then two blue. */
async function twoColours(): Promise<Buffer> {
  const path = join(mkdtempSync(join(tmpdir(), 'lanternpost-glimpses-')), 'film.mp4');
  const colour = (name: string) => ['-f', 'lavfi', '-i', `color=${name}:s=640x360:r=25:d=2`];
  const joined = [
    '-filter_complex',
    '[0][1]concat',
    '-c:v',
    'libx264',
    '-preset',
    'ultrafast',
    '-pix_fmt',
    'yuv420p',
    path,
  ];
  await promisify(execFile)('ffmpeg', ['-v', 'error', ...colour('0xc00000'), ...colour('0x0000c0'), ...joined]);
  return readFileSync(path);
}

/** A network whose hall shows one file, with a player that plays it. */
async function network(name = 'Poster.jpg', bytes?: Buffer) {
  const actor = await newNetwork();
  const received = await send(actor, name, bytes ?? (await picture(RED, 1280, 720)));
  if ('upload' in received) await processUpload(received.upload.id);
  const [media] = await rows<{ id: string }>(
    "SELECT slug AS id FROM plan_objects WHERE network_id = $1 AND kind = 'media'",
    [actor.networkId],
  );
  const size = { width: 1920, height: 1080 };
  await edit(actor, [
    { kind: 'site', id: 'quay', add: { name: 'Quay', timeZone: 'Europe/Oslo', tags: [] } },
    {
      kind: 'screen',
      id: 'hall',
      add: { name: 'Hall', site: 'quay', ...size, tags: [], backdrop: { media: media?.id, durationMs: 10_000 } },
    },
    { kind: 'screen', id: 'mess', add: { name: 'Mess', site: 'quay', ...size, tags: [], private: true } },
  ]);
  await publishEdition(actor, await lastChange(actor.networkId));
  const player = await pairedPlayer(actor, 'hall');
  const { program } = await targetOf(player);
  return { actor, player, program: program ?? '' };
}

/** Each picture comes at another time, a second after the one before at least. */
let now = Date.now();
const take = (player: Player, bytes: Uint8Array, program?: string, at = now) =>
  takeGlimpse(player, bytes, { at, program }, (now += 1000));
/** Compares the newest picture as the worker does. */
async function verdict(actor: Actor) {
  const [newest] = await newestGlimpses(actor, ['hall']);
  await compareGlimpse({ glimpse: newest?.id ?? '' });
  return (await newestGlimpses(actor, ['hall']))[0]?.verdict;
}

test('a picture is made small, kept with its instant, and looked at; of many the newest are kept', async () => {
  const { actor, player, program } = await network();
  await take(player, await picture(RED, 3840, 2160), program);
  const [newest] = await newestGlimpses(actor, ['hall', 'mess']);
  expect(newest).toMatchObject({ screen: 'hall', verdict: null, hasPlanned: false });
  const { width, height, format } = await sharp(await glimpsePicture(actor, newest?.id ?? '')).metadata();
  expect([width, height, format]).toEqual([640, 360, 'jpeg']);
  const small = await picture(RED, 64, 36);
  for (let i = 0; i < 50; i++) await take(player, small, program);
  expect(await glimpsesOfScreen(actor, 'hall')).toHaveLength(48);
});

test('it is compared with what the forecast says: the same, another picture, black; a wrong one is told as a trouble', async () => {
  const { actor, player, program } = await network();
  const troubles = async () => {
    const { report } = {
      report: {
        state: 'playing',
        edition: 1,
        program,
        playing: null,
        download: null,
        clockOffsetMs: 0,
        storage: null,
        errors: [],
        software: 't',
      },
    };
    await rows('UPDATE players SET report = $2, last_seen = now() WHERE id = $1', [player.id, JSON.stringify(report)]);
    return (await screenStatuses(actor)).find(({ id }) => id === 'hall')?.troubles;
  };
  await take(player, await picture(RED), program);
  expect(await verdict(actor)).toBe('alike');
  expect(await troubles()).toEqual([]);
  const [newest] = await newestGlimpses(actor, ['hall']);
  const planned = await sharp(await glimpsePicture(actor, newest?.id ?? '', 'planned'))
    .resize(2, 1)
    .raw()
    .toBuffer();
  expect(planned[0]).toBeGreaterThan(150);
  await take(player, await picture('#2050d0'), program);
  expect(await verdict(actor)).toBe('differs');
  // The left half is of another colour, and is marked as such.
  const { different } = (await newestGlimpses(actor, ['hall']))[0] ?? {};
  expect(different?.every((field) => field % 8 < 4)).toBe(true);
  expect(different).toHaveLength(32);
  expect(await troubles()).toEqual([expect.stringContaining('doesn’t show what is planned')]);
  await take(player, await plainPicture(640, 360, '#000'), program);
  expect(await verdict(actor)).toBe('black');
  expect(await troubles()).toEqual([expect.stringContaining('is black')]);
  await take(player, await picture(RED), program);
  expect(await verdict(actor)).toBe('alike');
  expect(await troubles()).toEqual([]);
});

test('a video is compared with its frames around that moment: one that stands still is found', async () => {
  const { actor, player, program } = await network('Film.mp4', await twoColours());
  // A backdrop begins at midnight.
  const midnight = Date.UTC(2026, 11, 1, 23);
  const verdictAt = async (seconds: number, seen: Uint8Array) => {
    await take(player, seen, program);
    const [newest] = await newestGlimpses(actor, ['hall']);
    const at = new Date(midnight + seconds * 1000);
    await rows('UPDATE glimpses SET taken_at = $2, received_at = $2 WHERE id = $1', [newest?.id, at]);
    await compareGlimpse({ glimpse: newest?.id ?? '' });
    const [told] = await rows<{ verdict: string }>('DELETE FROM glimpses WHERE id = $1 RETURNING verdict', [
      newest?.id,
    ]);
    return told?.verdict;
  };
  const [red, blue] = [await plainPicture(640, 360, '#c00000'), await plainPicture(640, 360, '#0000c0')];
  expect(await verdictAt(1, red)).toBe('alike');
  expect(await verdictAt(3, blue)).toBe('alike');
  expect(await verdictAt(3, red)).toBe('differs');
  // It is shorter than its turn of ten seconds: its last frame stays.
  expect(await verdictAt(7, blue)).toBe('alike');
  expect(await verdictAt(7, red)).toBe('differs');
});

/** A network whose hall shows a board: a picture beside a card and above a foot line; a corner over it, and another picture when a cue is fired. */
async function boardNetwork() {
  const { actor, player } = await network();
  const [media] = await rows<{ id: string }>(
    "SELECT slug AS id FROM plan_objects WHERE network_id = $1 AND kind = 'media'",
    [actor.networkId],
  );
  const added = async (name: string, colour: string) => {
    const received = await send(actor, name, await plainPicture(320, 180, colour));
    if ('upload' in received) await processUpload(received.upload.id);
    const [file] = await rows<{ id: string }>(
      "SELECT slug AS id FROM plan_objects WHERE network_id = $1 AND kind = 'media' AND document->>'name' = $2",
      [actor.networkId, name.replace('.png', '')],
    );
    return file?.id ?? '';
  };
  const [foot, corner, fired] = [
    await added('Foot.png', '#28c828'),
    await added('Corner.png', '#e0e040'),
    await added('Fired.png', '#e0e0e0'),
  ];
  const size = { width: 1920, height: 1080 };
  await edit(actor, [
    { kind: 'bulletin', id: 'words', add: { name: 'Words', kind: 'notice', text: 'Hello' } },
    { kind: 'cue', id: 'greet', add: { name: 'Greet' } },
    {
      kind: 'layout',
      id: 'board',
      add: {
        ...{ name: 'Board', ...size, background: '#203040' },
        zones: [
          { id: 'main', x: 0, y: 0, width: 960, height: 960, content: { media: media?.id }, fit: 'stretch' },
          { id: 'side', x: 960, y: 0, width: 480, height: 960, content: { bulletin: 'words' } },
          { id: 'foot', x: 0, y: 990, width: 1920, height: 90, content: { media: foot }, fit: 'fill' },
        ],
      },
    },
    {
      kind: 'layout',
      id: 'badge',
      add: {
        ...{ name: 'Badge', ...size, background: '#ffffff' },
        zones: [{ id: 'corner', x: 1600, y: 40, width: 280, height: 280, content: { media: corner }, fit: 'fill' }],
      },
    },
    { kind: 'screen', id: 'hall', set: { backdrop: { layout: 'board' } } },
    {
      kind: 'booking',
      id: 'badge',
      add: {
        name: 'Badge',
        content: { layout: 'badge' },
        overlay: {},
        where: 'all',
        when: {},
        priority: 3,
        created: '2026-01-01T00:00:00Z',
      },
    },
    {
      kind: 'booking',
      id: 'greeting',
      add: {
        name: 'Greeting',
        content: { media: fired },
        where: 'all',
        when: {},
        priority: 5,
        cue: 'greet',
        forMs: 60_000,
        created: '2026-01-01T00:00:00Z',
      },
    },
  ]);
  await publishEdition(actor, await lastChange(actor.networkId));
  const { program } = await targetOf(player);
  return { actor, player, program: program ?? '' };
}

/** The board as a display draws it, with a colour in place of each part of it. */
async function board({
  left = RED,
  right = '#1b2330',
  side = '#a05010',
  foot = '#28c828',
  corner = '#e0e040',
  ground = '#203040',
} = {}) {
  const part = (background: string, left: number, top: number, width: number, height: number) => ({
    ...{ left, top },
    input: { create: { width, height, channels: 3 as const, background } },
  });
  return sharp({ create: { width: 960, height: 540, channels: 3, background: ground } })
    .composite([
      ...[part(left, 0, 0, 240, 480), part(right, 240, 0, 240, 480), part(side, 480, 0, 240, 480)],
      ...[part(foot, 0, 495, 960, 45), part(corner, 800, 20, 140, 140)],
    ])
    .png()
    .toBuffer();
}

test('a layout is compared place by place: a small zone that is wrong is found, and words may look as they do', async () => {
  const { actor, player, program } = await boardNetwork();
  const verdictOn = async (parts: Parameters<typeof board>[0]) => {
    await take(player, await board(parts), program);
    return verdict(actor);
  };
  expect(await verdictOn({})).toBe('alike');
  expect(await verdictOn({ side: '#ffffff' })).toBe('alike');
  const planned = await glimpsePicture(actor, (await newestGlimpses(actor, ['hall']))[0]?.id ?? '', 'planned');
  const { data } = await sharp(planned)
    .extract({ left: 440, top: 120, width: 4, height: 4 })
    .raw()
    .toBuffer({ resolveWithObject: true });
  // Nobody knows how the words look: in the picture for people their place is grey.
  expect(Math.abs((data[0] ?? 0) - 128)).toBeLessThan(12);
  expect(await verdictOn({ left: '#2050d0' })).toBe('differs');
  expect((await newestGlimpses(actor, ['hall']))[0]?.different?.every((field) => field % 8 < 2)).toBe(true);
  expect(await verdictOn({ foot: '#c02020' })).toBe('differs');
  expect((await newestGlimpses(actor, ['hall']))[0]?.different?.every((field) => field >= 56)).toBe(true);
  expect(await verdictOn({ corner: '#203040' })).toBe('differs');
  expect(await verdictOn({ ground: '#f0f0f0' })).toBe('differs');
  expect(
    await verdictOn({ left: '#000', right: '#000', side: '#000', foot: '#000', corner: '#000', ground: '#000' }),
  ).toBe('black');
});

test('what is fired counts from its moment; a player may hear of it some seconds later', async () => {
  const { actor, player, program } = await boardNetwork();
  const greeting = await board({
    left: '#e0e0e0',
    right: '#e0e0e0',
    side: '#e0e0e0',
    foot: '#e0e0e0',
    ground: '#e0e0e0',
  });
  await take(player, greeting, program);
  expect(await verdict(actor)).toBe('differs');
  await fireCue(actor, { cue: 'greet' }, undefined, now - 1000);
  await take(player, greeting, program);
  expect(await verdict(actor)).toBe('alike');
  await take(player, await board(), program);
  expect(await verdict(actor)).toBe('alike');
  now += 10_000;
  await take(player, greeting, program);
  expect(await verdict(actor)).toBe('alike');
  await take(player, await board(), program);
  expect(await verdict(actor)).toBe('differs');
});

test('a private screen is seen by nobody: refused, not told to players, and what was seen before is hidden and deleted', async () => {
  const { actor, player, program } = await network();
  await take(player, await picture(RED), program);
  await edit(actor, [{ kind: 'screen', id: 'hall', set: { private: true } }]);
  expect(await refusal(take(player, await picture(RED), program))).toBe(
    '403 This screen is private. No pictures are taken of it.',
  );
  const [kept] = await rows<{ id: string }>('SELECT id FROM glimpses WHERE network_id = $1', [actor.networkId]);
  expect(await newestGlimpses(actor, ['hall'])).toEqual([]);
  expect(await glimpsesOfScreen(actor, 'hall')).toEqual([]);
  expect(await refusal(glimpsePicture(actor, kept?.id ?? ''))).toMatch(/^404/);
  await rows(
    "UPDATE players SET glimpse = jsonb_build_object('verdict', 'black', 'at', $2::bigint), report = '{\"errors\": [], \"clockOffsetMs\": 0}' WHERE id = $1",
    [player.id, Date.now()],
  );
  const statuses = await screenStatuses(actor);
  expect(statuses.find(({ id }) => id === 'hall')?.troubles).toEqual([]);
  await watchScreens(actor, ['hall']);
  expect(await rows('SELECT 1 FROM glimpse_watches WHERE network_id = $1', [actor.networkId])).toEqual([]);
  expect(await clearGlimpses(new Date())).toBeGreaterThan(0);
  await edit(actor, [{ kind: 'screen', id: 'hall', set: { private: null } }]);
  expect(await newestGlimpses(actor, ['hall'])).toEqual([]);
});

test.each([
  ['text', Buffer.from('hello')],
  ['a drawing', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>')],
  ['half a picture', null],
])('%s is refused, and nothing is stored', async (_what, bytes) => {
  const { actor, player } = await network();
  const whole = await picture(RED);
  expect(await refusal(take(player, bytes ?? whole.subarray(0, whole.length / 2)))).toMatch(/^422 This/);
  expect(await newestGlimpses(actor, ['hall'])).toEqual([]);
});

test('a player that sends too quickly is refused; its clock is believed if it is near ours', async () => {
  const { actor, player } = await network();
  const bytes = await picture(RED);
  await take(player, bytes, undefined, now - 24 * HOUR);
  expect(await refusal(takeGlimpse(player, bytes, { at: now }, now + 100))).toMatch(/^429/);
  const [newest] = await newestGlimpses(actor, ['hall']);
  expect(Date.parse(newest?.takenAt ?? '')).toBe(now);
});

test('where pictures come faster than they are compared, the newest of a screen is', async () => {
  const { actor, player, program } = await network();
  await take(player, await picture('#2050d0'), program);
  const [older] = await newestGlimpses(actor, ['hall']);
  await take(player, await picture(RED), program);
  await compareGlimpse({ glimpse: older?.id ?? '' });
  expect(await verdict(actor)).toBe('alike');
  expect((await glimpsesOfScreen(actor, 'hall')).map((one) => one.verdict)).toEqual(['alike', null]);
});

test('another network sees nothing of it, and a program of another network is compared with nothing', async () => {
  const [own, other] = [await network(), await network('Other.jpg', await picture('#28c828', 1280, 720))];
  await take(own.player, await picture(RED), other.program);
  expect(await verdict(own.actor)).toBeNull();
  const [newest] = await newestGlimpses(own.actor, ['hall']);
  expect(newest?.hasPlanned).toBe(false);
  expect(await newestGlimpses(other.actor, ['hall'])).toEqual([]);
  expect(await refusal(glimpsePicture(other.actor, newest?.id ?? ''))).toMatch(/^404/);
});

test('pictures are taken as often as the screen says, and every ten seconds while somebody looks', async () => {
  const { actor, player } = await network();
  const told = async () => (await playerBackend.targetOf((await playerOf(await tokenOf(player))) ?? player)).glimpses;
  const tokenOf = async ({ id }: Player) => {
    const [row] = await rows<{ hash: string }>('SELECT token_hash AS hash FROM players WHERE id = $1', [id]);
    return row?.hash ?? '';
  };
  expect(await told()).toEqual({ allowed: true });
  expect((await playerBackend.targetOf({ ...player, glimpseMinutes: 5 })).glimpses).toEqual({
    allowed: true,
    everyMs: 5 * MINUTE,
  });
  expect((await playerBackend.targetOf({ ...player, isPrivate: true })).glimpses).toEqual({ allowed: false });
  await watchScreens(actor, ['hall']);
  await new Promise<void>((done) => {
    const look = () => void told().then((one) => (one?.everyMs === 10_000 ? done() : setTimeout(look, 20)));
    look();
  });
});

test('a picture that comes during an edit waits for it, and the edit not for the picture', async () => {
  const { actor, player } = await network();
  let coming: Promise<void> = Promise.resolve();
  await transaction(async (within) => {
    await rows('SELECT 1 FROM networks WHERE id = $1 FOR UPDATE', [actor.networkId], within);
    coming = take(player, await picture(RED));
    // Until it waits for the network, or is through.
    const waits = "SELECT 1 FROM pg_stat_activity WHERE wait_event_type = 'Lock' AND query LIKE '%INTO glimpses%'";
    while ((await rows(waits)).length === 0);
    await rows(
      "UPDATE plan_objects SET document = document WHERE network_id = $1 AND kind = 'screen'",
      [actor.networkId],
      within,
    );
  });
  await coming;
  expect(await newestGlimpses(actor, ['hall'])).toHaveLength(1);
});
