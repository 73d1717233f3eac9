import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import type { ProgramDocument } from '@/core/edition';
import { HOUR, MINUTE } from '@/core/instant';
import { programOf } from '@/core/tests/program-of';
import { smallPlan } from '@/core/tests/small-plan';
import { FleetStore } from '@/fleet/store';
import { createPlayerApp } from '@/protocol/app';
import type { PlayerBackend, Woken } from '@/protocol/player-backend';
import { ProtocolClient } from '@/protocol/client';
import type { Report, Target } from '@/protocol/schemas';
import { needsOf } from './needs';
import { PlayerSession } from './session';
import { realWorld } from './world';

const NOW = Date.UTC(2026, 10, 25, 12);
const bytesOf = (name: string, length = 1_500_000) => Buffer.alloc(length, name);
const shaOf = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex');
const FILES = new Map(['flag', 'sailings', 'spring'].map((name) => [shaOf(bytesOf(name)), bytesOf(name)]));

/** A program whose screen shows the flag, from 14:00 the sailings, and in spring something else. */
function program(extra: object = {}, window = ['14:00', '15:00']): { hash: string; text: string } {
  const plan = smallPlan({
    network: { backdrop: { media: 'flag' } },
    screens: ['hall'],
    media: ['flag', 'sailings', 'spring'].map((id) => {
      const bytes = bytesOf(id);
      return { id, bytes: bytes.length, sha256: shaOf(bytes), type: 'image/png' };
    }),
    bookings: [
      { content: { media: 'sailings' }, when: { windows: [window] } },
      { content: { media: 'spring' }, when: { from: '2027-03-01', ...extra } },
    ],
  });
  return programOf(plan, 'hall');
}

/** A server with one screen; `world` changes how it behaves. */
function world() {
  const state = {
    target: null as { edition: number; hash: string; text: string } | null,
    paired: false,
    cut: false,
    /** What was asked while the line was cut, and how often a code was asked about. */
    cutAsked: 0,
    polls: 0,
    /** Sends at most so many bytes of a file, then breaks the line. */
    breakAfter: Infinity,
    spoil: false,
    /** Programs come otherwise than their hash says. */
    spoilProgram: false,
    /** The code that is shown is over. */
    expired: false,
    codes: 0,
    /** A file that begins and does not end. */
    stuck: null as string | null,
    /** A file that the server does not find. */
    missing: null as string | null,
    /** A program that is not there any more when it is asked for, and what is wanted instead. */
    gone: null as { hash: string; instead: { edition: number; hash: string; text: string } } | null,
    /** Something in between answers in place of the server. */
    portal: false,
    portalAsked: 0,
    /** Streams that the player let go of before they ended. */
    broken: 0,
    asked: [] as { sha256: string; start: number }[],
    reports: [] as Report[],
    wakes: new Set<(what: Woken) => void>(),
  };
  const targetOf = async (): Promise<Target> => ({
    screen: { id: 'hall', name: 'Hall', width: 10, height: 10 },
    edition: state.target?.edition ?? null,
    program: state.target?.hash ?? null,
    serverTime: NOW,
  });
  const backend: PlayerBackend<string> = {
    startPairing: async () => {
      state.codes++;
      return { deviceCode: 'd'.repeat(30), userCode: 'BCDF-GHJK', expiresIn: 900, interval: 0 };
    },
    collectToken: async () => {
      state.polls++;
      if (state.paired) return { token: 't'.repeat(43) };
      const over = state.expired;
      state.expired = false;
      return over ? 'expired' : 'pending';
    },
    playerOf: async () => (state.paired ? 'hall' : null),
    targetOf,
    programText: async (_player, hash) => {
      if (hash === state.gone?.hash) state.target = state.gone.instead;
      if (hash !== state.target?.hash) return null;
      return state.spoilProgram ? state.target.text.replace('10000', '20000') : state.target.text;
    },
    fileOf: async (_player, sha256) =>
      FILES.has(sha256) && sha256 !== state.missing ? { sha256, type: 'image/png', bytes: 1_500_000 } : null,
    openFile: async ({ sha256 }, range) => {
      const start = range?.start ?? 0;
      state.asked.push({ sha256, start });
      const rest = Buffer.from((FILES.get(sha256) as Buffer).subarray(start));
      if (state.spoil) rest[10] = 0;
      if (sha256 === state.stuck)
        return new Readable({
          read() {
            this.push(rest.subarray(0, 100));
            this._read = () => undefined;
          },
          destroy(_error, done) {
            state.broken++;
            done(null);
          },
        });
      if (rest.length <= state.breakAfter) return Readable.from([rest]);
      const part = rest.subarray(0, state.breakAfter);
      return Readable.from(
        (async function* () {
          yield part;
          throw new Error('the line broke');
        })(),
      );
    },
    heartbeat: (_player, report) => void state.reports.push(report),
    onChange: (_player, wake) => {
      state.wakes.add(wake);
      return () => state.wakes.delete(wake);
    },
    noteOutcomes: () => Promise.resolve(),
    noteFirings: () => Promise.resolve(),
    takeGlimpse: () => Promise.resolve(),
    logError: () => undefined,
  };
  const app = createPlayerApp(backend, () => '127.0.0.1');
  const fetcher = (async (input: string, init: RequestInit) => {
    if (state.cut) {
      state.cutAsked++;
      throw new TypeError('no network');
    }
    if (state.portal) {
      state.portalAsked++;
      return new Response('<h1>Log in to this network</h1>', {
        status: 401,
        headers: { 'content-type': 'text/html' },
      });
    }
    return app.request(new URL(input).pathname, init);
  }) as unknown as typeof fetch;
  return { state, fetcher };
}

/** A world in which a session waits a twentieth of the time: what comes before what stays. */
const QUICK = {
  now: () => NOW,
  random: () => 0,
  wait: (ms: number, signal: AbortSignal) => realWorld.wait(ms / 20, signal),
};

const sessions: PlayerSession[] = [];
afterEach(() => sessions.splice(0).forEach((session) => session.stop()));

function begin(
  fetcher: typeof fetch,
  store = new FleetStore(null),
  lateByMs = 0,
  wait = QUICK.wait,
  now = () => NOW - lateByMs,
) {
  const seen = {
    codes: [] as (string | null)[],
    programs: [] as (string[] | null)[],
    screens: [] as (string | null)[],
  };
  const session = new PlayerSession(
    new ProtocolClient('http://server.test', null, now, fetcher),
    store,
    {
      code: (code) => seen.codes.push(code),
      screen: (screen) => seen.screens.push(screen && screen.name),
      program: (document: ProgramDocument | null) =>
        seen.programs.push(document && Object.keys(document.assets).sort()),
    },
    { software: 'test', playing: () => ({ state: 'playing', playing: null }) },
    { ...QUICK, now, wait },
  );
  sessions.push(session);
  void session.run();
  return { seen, store, session };
}

/** Whether a store has all of a file. */
const has = async (store: FleetStore, name: string) => (await store.files()).get(shaOf(bytesOf(name)))?.whole === true;

async function until(look: () => unknown): Promise<void> {
  for (let tries = 0; tries < 2_400; tries++) {
    if (await look()) return;
    await new Promise((done) => setTimeout(done, 5));
  }
  throw new Error('it never came to hold');
}

jest.setTimeout(30_000);

test('from box to lit: code, token, program, and its files in the order in which they are needed', async () => {
  const { state, fetcher } = world();
  state.target = { edition: 1, ...program() };
  const { seen, store } = begin(fetcher);
  await until(() => seen.codes.includes('BCDF-GHJK'));
  state.paired = true;
  await until(() => seen.programs.length === 1);
  // What the first day needs is here, what spring needs comes after.
  expect(await has(store, 'flag')).toBe(true);
  await until(() => has(store, 'spring'));
  expect(state.asked.map(({ sha256 }) => sha256)).toEqual(
    ['flag', 'sailings', 'spring'].map((name) => shaOf(bytesOf(name))),
  );
  await until(() => state.reports.some((report) => report.program === state.target?.hash));
});

test('how fast files come is measured, and told', async () => {
  const { state, fetcher } = world();
  state.paired = true;
  state.target = { edition: 1, ...program() };
  // Each look at the clock is a quarter of a second later: some looks for each megabyte and a half.
  let at = NOW;
  const { store } = begin(fetcher, undefined, 0, QUICK.wait, () => (at += 250));
  await until(() => has(store, 'spring'));
  const speeds = () => state.reports.map(({ bytesPerSecond }) => bytesPerSecond);
  await until(() => speeds().some((speed) => speed));
  expect(speeds()[0]).toBeNull();
  const last = speeds().at(-1) ?? 0;
  expect(last).toBeGreaterThan(50_000);
  expect(last).toBeLessThan(6_000_001);
});

test('a line that breaks: the file goes on where it stopped', async () => {
  const { state, fetcher } = world();
  state.paired = true;
  state.target = { edition: 1, ...program() };
  state.breakAfter = 600_000;
  const { seen, store } = begin(fetcher);
  await until(() => seen.programs.length === 1);
  const flag = state.asked.filter(({ sha256 }) => sha256 === shaOf(bytesOf('flag'))).map(({ start }) => start);
  expect(flag[0]).toBe(0);
  expect(flag.length).toBeGreaterThan(1);
  expect([...flag].sort((a, b) => a - b)).toEqual(flag);
  expect(flag.at(-1)).toBeGreaterThan(0);
  expect(await has(store, 'flag')).toBe(true);
});

test('a file that comes damaged is thrown away, reported, and fetched again until it is right', async () => {
  const { state, fetcher } = world();
  state.paired = true;
  state.spoil = true;
  state.target = { edition: 1, ...program() };
  const { seen, store } = begin(fetcher);
  const flag = () => state.asked.filter(({ sha256 }) => sha256 === shaOf(bytesOf('flag')));
  await until(() => flag().length > 1);
  expect(flag().every(({ start }) => start === 0)).toBe(true);
  expect(await has(store, 'flag')).toBe(false);
  expect(seen.programs).toEqual([]);
  state.spoil = false;
  await until(() => seen.programs.length === 1);
  await until(() => state.reports.some((one) => one.errors.some((error) => error.message.includes('arrived damaged'))));
});

test('what was called off as it was fetched is no error: what is wanted by then is fetched', async () => {
  const { state, fetcher } = world();
  state.paired = true;
  state.target = { edition: 1, ...program() };
  const { seen } = begin(fetcher);
  await until(() => seen.programs.length === 1);
  const off = program({ to: '2027-03-05' });
  const instead = { edition: 3, ...program({ to: '2027-03-06' }) };
  state.gone = { hash: off.hash, instead };
  state.target = { edition: 2, ...off };
  state.wakes.forEach((wake) => wake('target'));
  await until(() => state.reports.at(-1)?.program === instead.hash);
  expect(state.reports.flatMap(({ errors }) => errors)).toEqual([]);
});

test('a program that comes damaged is not played, is reported, and is fetched again until it is right', async () => {
  const { state, fetcher } = world();
  state.paired = true;
  state.spoilProgram = true;
  state.target = { edition: 1, ...program() };
  expect(state.target.text).toContain('10000');
  const { seen, session } = begin(fetcher);
  const reported = () => state.reports.flatMap(({ errors }) => errors.map(({ message }) => message));
  await until(() => reported().includes('The program arrived damaged, so it is being downloaded again.'));
  expect(seen.programs).toEqual([]);
  state.spoilProgram = false;
  session.hurry();
  await until(() => seen.programs.length === 1);
});

test('what failed waits its time, and is tried at once when the server says that somebody waits for it', async () => {
  const { state, fetcher } = world();
  state.paired = true;
  state.spoil = true;
  state.target = { edition: 1, ...program() };
  // Nothing but the end of a wait lets this one go on, once it has failed.
  let failed = false;
  const { seen } = begin(fetcher, new FleetStore(null), 0, (ms, signal) => {
    failed ||= state.asked.length > 0;
    return realWorld.wait(failed ? 2 ** 30 : ms / 20, signal);
  });
  await until(() => failed && state.wakes.size > 0);
  state.spoil = false;
  expect(state.asked).toHaveLength(1);
  expect(seen.programs).toEqual([]);
  state.wakes.forEach((wake) => wake('hurry'));
  await until(() => seen.programs.length === 1);
});

test('while nobody types the code a line that breaks keeps it; one that is over is followed by another', async () => {
  const { state, fetcher } = world();
  const { seen, session } = begin(fetcher);
  await until(() => state.codes === 1);
  state.cut = true;
  await until(() => state.cutAsked > 2);
  state.cut = false;
  const { polls } = state;
  await until(() => state.polls > polls + 2);
  expect(state.codes).toBe(1);
  state.expired = true;
  await until(() => state.codes === 2);
  state.paired = true;
  await until(() => seen.codes.at(-1) === null);
  session.stop();
});

test('a new target goes ahead of the file that is under way for the last one', async () => {
  const { state, fetcher } = world();
  state.paired = true;
  state.target = { edition: 1, ...program() };
  const { session, store } = begin(fetcher);
  await until(() => has(store, 'spring'));
  session.stop();
  // What comes next needs a file that does not come to an end.
  await store.discard(shaOf(bytesOf('sailings')));
  state.stuck = shaOf(bytesOf('sailings'));
  const asked = state.asked.length;
  const again = begin(fetcher, store);
  await until(() => state.asked.slice(asked).some(({ sha256 }) => sha256 === state.stuck));
  state.target = { edition: 2, ...program({ to: '2027-03-05' }, ['14:00', '14:00']) };
  state.wakes.forEach((wake) => wake('target'));
  state.stuck = null;
  await until(() => again.seen.programs.length === 2);
  await until(() => state.broken > 0);
});

test('a file that is needed later and fails is fetched again, also after a restart, and is told as missing until it is here', async () => {
  const { state, fetcher } = world();
  state.paired = true;
  state.target = { edition: 1, ...program() };
  state.missing = shaOf(bytesOf('spring'));
  const first = begin(fetcher);
  await until(() => state.reports.some((one) => one.program === state.target?.hash && one.missing));
  // A file that the server does not have, again and again, is an error.
  await until(() => state.reports.some(({ errors }) => errors.at(-1)?.message === 'This player has no such file.'));
  const told = state.reports.findLast((one) => one.missing);
  // Spring begins on 1 March: until then it is not to be seen, and not within two months of November.
  expect(told?.missing).toEqual({ files: 1, bytes: 1_500_000, neededBy: null });
  first.session.stop();
  const again = begin(fetcher, first.store);
  await until(() => again.seen.programs.length === 1);
  state.missing = null;
  await until(() => has(again.store, 'spring'));
  await until(() => state.reports.at(-1)?.missing === null);
});

/** A paired player that has all of edition 1 in its store, and is off. */
async function switchedOff() {
  const { state, fetcher } = world();
  state.paired = true;
  state.target = { edition: 1, ...program() };
  const { session, store } = begin(fetcher);
  await until(() => has(store, 'spring'));
  session.stop();
  return { state, fetcher, store };
}

test('a 401 of anything in between is not ours: the player keeps its token and its program', async () => {
  const { state, fetcher, store: held } = await switchedOff();
  state.portal = true;
  const { seen, store } = begin(fetcher, held);
  await until(() => state.portalAsked > 5);
  expect(seen.programs).toHaveLength(1);
  expect((await store.load()).token).not.toBeNull();
  state.portal = false;
  state.target = { edition: 2, ...program({ windows: [['08:00', '09:00']] }) };
  await until(() => seen.programs.length === 2);
});

test('a clock that is put back while our server refuses: the token is given up two minutes after that, not an hour', async () => {
  const { state, fetcher, store } = await switchedOff();
  state.paired = false;
  let [now, refused] = [NOW, 0];
  const counted = (async (...asked: Parameters<typeof fetch>) => {
    const response = await fetcher(...asked);
    if (response.status === 401) refused++;
    return response;
  }) as typeof fetch;
  const { seen } = begin(counted, store, 0, QUICK.wait, () => now);
  const refusedAgain = (before = refused) => until(() => refused > before + 2);
  await refusedAgain();
  now -= HOUR;
  await refusedAgain();
  expect((await store.load()).token).not.toBeNull();
  now += 2 * MINUTE;
  await until(() => seen.codes.at(-1) === 'BCDF-GHJK');
});

test('without a network it comes up from its own store, and follows when the network is back', async () => {
  const { state, fetcher, store: held } = await switchedOff();
  state.cut = true;
  const again = begin(fetcher, held);
  await until(() => again.seen.programs.length === 1);
  state.target = { edition: 2, ...program({ windows: [['08:00', '09:00']] }) };
  state.cut = false;
  await until(() => again.seen.programs.length === 2);
});

test('of what went wrong the last twenty are told, however many there were', async () => {
  const { state, fetcher } = world();
  state.paired = true;
  const { session } = begin(fetcher);
  await until(() => state.reports.length > 0);
  for (let i = 0; i < 50; i++) session.report(`trouble ${i}`);
  session.hurry();
  await until(() => state.reports.some(({ errors }) => errors.at(-1)?.message === 'trouble 49'));
  const told = state.reports.at(-1)?.errors ?? [];
  expect([told.length, told[0]?.message]).toEqual([20, 'trouble 30']);
});

test('unpaired, it forgets the screen and shows a new code', async () => {
  const { state, fetcher } = world();
  state.paired = true;
  state.target = { edition: 1, ...program() };
  const { seen } = begin(fetcher);
  await until(() => seen.programs.length === 1 && state.wakes.size > 0);
  state.paired = false;
  state.wakes.forEach((wake) => wake('unpaired'));
  await until(() => seen.programs.at(-1) === null && seen.codes.at(-1) === 'BCDF-GHJK');
});

test('a clock that is wrong: the time is the server’s, it is reported, and kept for the next start', async () => {
  const { state, fetcher } = world();
  state.paired = true;
  state.target = { edition: 1, ...program() };
  const { session, store, seen } = begin(fetcher, new FleetStore(null), 240_000);
  await until(() => seen.programs.length === 1);
  expect(session.serverNow()).toBe(NOW);
  await until(() => state.reports.some((one) => one.clockOffsetMs === 240_000));
  expect(await store.load()).toMatchObject({ clockOffsetMs: 240_000, screen: { id: 'hall', name: 'Hall' } });
  session.stop();
  state.cut = true;
  const again = begin(fetcher, store, 240_000);
  await until(() => again.seen.programs.length === 1);
  expect([again.session.serverNow(), again.seen.screens]).toEqual([NOW, ['Hall']]);
});

test('an edition with the same program: its number is reported, and nothing is fetched or drawn anew', async () => {
  const { state, fetcher } = world();
  state.paired = true;
  state.target = { edition: 1, ...program() };
  const { seen, store } = begin(fetcher);
  await until(() => has(store, 'spring'));
  const asked = state.asked.length;
  state.target = { ...state.target, edition: 2 };
  state.wakes.forEach((wake) => wake('target'));
  await until(() => state.reports.at(-1)?.edition === 2);
  expect([seen.programs.length, state.asked.length, seen.screens]).toEqual([1, asked, ['Hall']]);
  expect((await store.load()).program?.edition).toBe(2);
});

test('each start is told by a life of its own', async () => {
  const { state, fetcher, store } = await switchedOff();
  const first = state.reports.at(-1)?.life;
  expect(first).toMatch(/^[0-9a-z-]{7,20}$/);
  expect(new Set(state.reports.map((one) => one.life)).size).toBe(1);
  const count = state.reports.length;
  const chance = jest.spyOn(QUICK, 'random').mockReturnValue(0.7);
  begin(fetcher, store);
  await until(() => state.reports.length > count);
  chance.mockRestore();
  expect(state.reports.at(-1)?.life).not.toBe(first);
});

describe('when files are due', () => {
  const names = (at: number, by: number) => {
    const document = JSON.parse(program().text) as ProgramDocument;
    return needsOf(document, at)
      .filter((need) => need.by <= by)
      .map(({ asset }) => ['flag', 'sailings', 'spring'].find((name) => shaOf(bytesOf(name)) === asset.sha256));
  };
  const HOUR = 3_600_000;

  test('the one that plays now first, then each at its turn; what is not within two months has no time', () => {
    expect(names(NOW, NOW)).toEqual(['flag']);
    expect(names(NOW, NOW + 2 * HOUR - 1)).toEqual(['flag']);
    expect(names(NOW, NOW + 2 * HOUR)).toEqual(['flag', 'sailings']);
    expect(names(NOW, NOW + 62 * 24 * HOUR)).toEqual(['flag', 'sailings']);
    expect(names(NOW, Infinity)).toEqual(['flag', 'sailings', 'spring']);
  });

  test('in spring its own file is the one that plays now; what it hides is never due', () => {
    const spring = Date.UTC(2027, 2, 1, 16);
    expect(names(spring, spring)).toEqual(['spring']);
    expect(names(spring, spring + 22 * HOUR)).toEqual(['spring', 'sailings']);
    expect(names(spring, spring + 61 * 24 * HOUR)).toEqual(['spring', 'sailings']);
  });
});
