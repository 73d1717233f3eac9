import { createHash } from 'node:crypto';
import fc from 'fast-check';
import type { Asset, ProgramDocument } from '@/core/edition';
import { FleetStore } from '@/fleet/store';
import { ProtocolClient } from '@/protocol/client';
import { eventOf } from '@/protocol/messages';
import type { Report, Target } from '@/protocol/schemas';
import { needsOf, type Need } from './needs';
import { PlayerSession } from './session';
import { backoffMs, type World } from './world';
import { runs } from '@/core/tests/runs';
import { programOf } from '@/core/tests/program-of';
import { smallPlan } from '@/core/tests/small-plan';

/**
 * The real session in a simulated world: its clock is ours, and what it asks of the server is lost, late, doubled, cut short,
 * spoiled, or answered by something else, in orders that are drawn at random. Whatever happens: it never starts a program without
 * the files of its first day, never keeps a file that is not what its name says, and never says lit when something that is to
 * be seen is missing; and once faults stop it comes to what is wanted.
 */

const START = Date.UTC(2026, 10, 25, 12);
const [SECOND, MINUTE, DAY] = [1000, 60_000, 86_400_000];
const TOKEN = 't'.repeat(43);
const shaOf = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');

const SIZES = { flag: 900, tide: 1300, gale: 300, spring: 2100, offers: 700 };
const FILES = new Map(
  Object.entries(SIZES).map(([name, size]) => {
    const bytes = new Uint8Array(Buffer.alloc(size, `${name} `));
    return [shaOf(bytes), { name, bytes }] as const;
  }),
);

interface Program {
  readonly hash: string;
  readonly text: string;
}

/** A program that shows the flag, and what is booked. */
function compiled(...bookings: readonly [media: keyof typeof SIZES, when: object][]): Program {
  const plan = smallPlan({
    network: { backdrop: { media: 'flag' } },
    screens: ['hall'],
    media: [...FILES].map(([sha256, { name, bytes }]) => ({
      ...{ id: name, bytes: bytes.length, sha256, type: 'image/png' },
    })),
    bookings: bookings.map(([media, when]) => ({ content: { media }, when })),
  });
  return programOf(plan, 'hall');
}

/** In turn: plain; one with a file of later; a takeover's; one of which all is needed at once. */
const PROGRAMS = [
  compiled(['tide', { windows: [['14:00', '15:00']] }]),
  compiled(['tide', { windows: [['14:00', '15:00']] }], ['spring', { from: '2026-11-29' }]),
  compiled(['gale', {}]),
  compiled(['offers', { windows: [['12:00', '12:30']] }], ['spring', { from: '2026-11-26' }]),
];

/** Nothing that these programs show begins or ends but at whole half hours. */
const HALF_HOUR = 30 * MINUTE;
const known = new Map<string, Need[]>();

/** What is to be seen by an instant of its half hour. */
function needsAt({ hash, text }: Program, now: number): Need[] {
  const begin = Math.floor(now / HALF_HOUR) * HALF_HOUR;
  const key = `${hash} ${begin}`;
  const needs = known.get(key) ?? needsOf(JSON.parse(text) as ProgramDocument, begin);
  known.set(key, needs);
  return needs;
}

/** Time that moves only when it is told to. */
class SimulatedWorld implements World {
  /** The true time. */
  time = START;
  /** How wrong the player's own clock is. */
  skew = 0;
  private timers: { at: number; order: number; done: () => void }[] = [];
  private count = 0;

  constructor(private readonly draw: () => number) {}

  now = () => this.time + this.skew;
  random = () => this.draw();
  wait = (ms: number, signal: AbortSignal): Promise<void> =>
    new Promise((resolve) => {
      if (signal.aborted) return resolve();
      const done = () => {
        this.timers = this.timers.filter((one) => one !== timer);
        signal.removeEventListener('abort', done);
        resolve();
      };
      const timer = { at: this.time + Math.max(0, ms), order: this.count++, done };
      this.timers.push(timer);
      signal.addEventListener('abort', done);
    });

  /** Lets time go on to an instant, stopping at each thing that was waited for. */
  async until(instant: number, each: () => Promise<void> | void = () => {}): Promise<void> {
    for (;;) {
      await settled();
      await each();
      const [next] = this.timers.sort((a, b) => a.at - b.at || a.order - b.order);
      if (!next || next.at > instant) break;
      this.time = Math.max(this.time, next.at);
      next.done();
    }
    this.time = Math.max(this.time, instant);
  }
}

/** Everything that does not wait for time has happened. */
async function settled(): Promise<void> {
  for (let i = 0; i < 3; i++) await new Promise((done) => setImmediate(done));
}

type Fault =
  'none' | 'lost' | 'answer lost' | 'late' | 'cut' | 'spoiled' | 'portal' | 'down' | 'refused' | 'from the start';
const FAULTS: readonly Fault[] = [
  ...(['none', 'none', 'none', 'lost', 'answer lost', 'late', 'cut', 'spoiled', 'portal', 'down', 'refused'] as const),
  'from the start',
];

/** The server and the line to it. */
class SimulatedServer {
  program: Program | null = null;
  edition: number | null = null;
  /** What begins at an instant, the earliest first. */
  coming: readonly { readonly at: number; readonly program: Program; readonly source: string }[] = [];
  /** No line at all. */
  cut = false;
  /** What was reported, with what the player had when it said so, and when that was by its corrected clock. */
  reports: { report: Report; whole: ReadonlySet<string>; now: number }[] = [];
  calm = false;
  /** The token is no longer known. */
  revoked = false;
  readonly listeners = new Set<ReadableStreamDefaultController<Uint8Array>>();
  private readonly ever = new AbortController().signal;

  constructor(
    private readonly world: SimulatedWorld,
    private readonly store: FleetStore,
    private readonly fault: () => Fault,
  ) {}

  publish(program: Program | null): void {
    this.program = program;
    this.edition = (this.edition ?? 0) + 1;
    this.tell();
  }

  /** Plans a program for an instant, moves one there, or calls all off. */
  plan(program: Program | null, at: number, source = program?.hash ?? ''): void {
    const others = this.coming.filter((one) => one.program !== program);
    this.coming = program ? [...others, { at, program, source }].sort((a, b) => a.at - b.at) : [];
    this.tell();
  }

  /** A planned edition comes with other files. */
  refit(from: Program | null, to: Program | null): void {
    this.coming = this.coming.map((one) => (to && one.program === from ? { ...one, program: to } : one));
    this.tell();
  }

  target(): Target {
    while (this.coming[0] && this.coming[0].at <= this.world.time) {
      this.program = this.coming[0].program;
      this.edition = (this.edition ?? 0) + 1;
      this.coming = this.coming.slice(1);
    }
    return {
      coming: this.coming.map(({ at, program, source }) => ({ at, program: program.hash, source })),
      screen: { id: 'hall', name: 'Hall', width: 10, height: 10 },
      edition: this.edition,
      program: this.program?.hash ?? null,
      serverTime: this.world.time,
    };
  }

  /** Tells all who listen, some of them twice. */
  tell(): void {
    const { event, data } = eventOf({ kind: 'target', data: this.target() });
    const text = new TextEncoder().encode(`event: ${event}\ndata: ${data}\n\n`);
    for (const one of this.listeners) for (let i = this.world.random() < 0.3 ? 2 : 1; i > 0; i--) one.enqueue(text);
  }

  breakStreams(): void {
    for (const one of this.listeners) one.error(new Error('the line broke'));
    this.listeners.clear();
  }

  readonly fetch = (async (input: string, init: RequestInit): Promise<Response> => {
    const fault = this.calm ? 'none' : this.fault();
    const { pathname } = new URL(input);
    const [own, files] = [this.world.now(), await this.store.files()];
    const whole = new Set([...files].flatMap(([sha256, file]) => (file.whole ? [sha256] : [])));
    if (this.cut) throw new TypeError('no network');
    if (fault === 'late') await this.world.wait(40 * SECOND * this.world.random(), this.ever);
    if (init.signal?.aborted) throw new TypeError('aborted');
    if (fault === 'lost') throw new TypeError('no network');
    if (fault === 'portal') return new Response('<h1>Log in</h1>', { headers: { 'content-type': 'text/html' } });
    if (fault === 'down') return new Response('Bad gateway', { status: 502 });
    if (fault === 'refused') return new Response('no', { status: 401, headers: { 'content-type': 'text/plain' } });
    if (pathname.endsWith('/heartbeat')) {
      const report = JSON.parse(String(init.body)) as Report;
      this.reports.push({ report, whole, now: own + report.clockOffsetMs });
    }
    if (this.revoked && !pathname.includes('/pairing')) return this.problem(401);
    const answer = this.answer(pathname.replace('/api/player/v1', ''), init, fault);
    if (fault === 'answer lost') throw new TypeError('the line broke');
    return answer;
  }) as typeof fetch;

  private answer(path: string, init: RequestInit, fault: Fault): Response {
    if (path === '/target') return Response.json(this.target());
    if (path === '/heartbeat') return Response.json(this.target());
    if (path === '/events') return this.events();
    const [, kind, name = ''] = path.split('/');
    if (kind === 'pairing') return this.problem(503);
    if (kind === 'programs') {
      const text = PROGRAMS.find((one) => one.hash === name)?.text;
      if (text === undefined) return this.problem(404);
      return new Response(fault === 'spoiled' ? text.replace('quay', 'quai').slice(1) : text);
    }
    const file = FILES.get(name);
    if (!file) return this.problem(404);
    const start = Number(/^bytes=(\d+)-$/.exec(new Headers(init.headers).get('range') ?? '')?.[1] ?? 0);
    // Some servers in between know no ranges.
    const from = fault === 'from the start' ? 0 : start;
    return new Response(bodyOf(file.bytes.slice(from), fault), { status: from > 0 ? 206 : 200 });
  }

  private problem(status: number): Response {
    const headers = { 'content-type': 'application/problem+json' };
    return new Response(JSON.stringify({ title: 'There is no such thing.', status }), { status, headers });
  }

  private events(): Response {
    let mine: ReadableStreamDefaultController<Uint8Array> | null = null;
    const body = new ReadableStream<Uint8Array>({
      start: (controller) => {
        mine = controller;
        this.listeners.add(controller);
      },
      cancel: () => {
        if (mine) this.listeners.delete(mine);
      },
    });
    this.tell();
    return new Response(body);
  }
}

/** A file in small chunks; cut off in the middle, or with a byte turned. */
function bodyOf(bytes: Uint8Array, fault: Fault): ReadableStream<Uint8Array> {
  const end = fault === 'cut' ? Math.floor(bytes.length / 2) : bytes.length;
  let at = 0;
  return new ReadableStream<Uint8Array>({
    pull(controller) {
      if (at >= end) return fault === 'cut' ? controller.error(new Error('the line broke')) : controller.close();
      const chunk = bytes.slice(at, Math.min(at + 150, end));
      if (fault === 'spoiled' && chunk[3] !== undefined) chunk[3] ^= 1;
      at += chunk.length;
      controller.enqueue(chunk);
    },
  });
}

/** A store that proves each file before it counts, and may be too small. */
class ProvingStore extends FleetStore {
  override async complete(asset: Asset): Promise<void> {
    const hash = createHash('sha256');
    for await (const piece of this.pieces(asset.sha256)) hash.update(piece);
    if (hash.digest('hex') !== asset.sha256) throw new Error(`An unverified file was kept: ${asset.sha256}`);
    await super.complete(asset);
  }
}

type Act =
  | { readonly kind: 'publish'; readonly program: number | null }
  | { readonly kind: 'plan'; readonly program: number | null; readonly minutes: number }
  | { readonly kind: 'pass'; readonly minutes: number }
  | { readonly kind: 'restart' | 'break' }
  | { readonly kind: 'clock'; readonly by: number }
  | { readonly kind: 'storage'; readonly bytes: number };

const acts: fc.Arbitrary<Act> = fc.oneof(
  {
    weight: 4,
    arbitrary: fc.option(fc.nat({ max: 3 }), { freq: 9 }).map((program): Act => ({ kind: 'publish', program })),
  },
  {
    weight: 3,
    arbitrary: fc
      .tuple(fc.option(fc.nat({ max: 3 }), { freq: 5 }), fc.constantFrom(1, 6, 45))
      .map(([program, minutes]): Act => ({ kind: 'plan', program, minutes })),
  },
  { weight: 4, arbitrary: fc.constantFrom(0.1, 1, 5, 70).map((minutes): Act => ({ kind: 'pass', minutes })) },
  { weight: 1, arbitrary: fc.constantFrom('restart' as const, 'break' as const).map((kind): Act => ({ kind })) },
  {
    weight: 1,
    arbitrary: fc.constantFrom(-DAY, -7 * MINUTE, 7 * MINUTE, 2 * DAY).map((by): Act => ({ kind: 'clock', by })),
  },
  { weight: 1, arbitrary: fc.constantFrom(1500, 2600, 1e9).map((bytes): Act => ({ kind: 'storage', bytes })) },
);

/** What is planned for later and then published at once shows something now that it would not have shown then. */
const BROUGHT_FORWARD: readonly Act[] = [
  ...[0, 0, null, 0].map((program): Act => ({ kind: 'publish', program })),
  { kind: 'plan', program: 3, minutes: 45 },
  { kind: 'publish', program: 3 },
  { kind: 'publish', program: null },
];

/** A player in the simulated world; each program that it starts and each report is held against what it has. */
async function live(steps: readonly Act[], faults: readonly Fault[], seed: number): Promise<void> {
  let state = seed;
  const draw = () => (state = (state * 1_664_525 + 1_013_904_223) % 4_294_967_296) / 4_294_967_296;
  const world = new SimulatedWorld(draw);
  let turn = 0;
  const store = new ProvingStore(null, 1e9);
  const server = new SimulatedServer(world, store, () => faults[turn++ % faults.length] ?? 'none');
  await store.save({ token: TOKEN });
  const started: string[] = [];
  const wrong: string[] = [];
  let playing: string | null = null;
  let session: PlayerSession | null = null;

  const start = () => {
    const client = new ProtocolClient('http://server.test', null, world.now, server.fetch);
    const made = new PlayerSession(
      client,
      store,
      {
        code: () => wrong.push('the player forgot its screen'),
        screen: () => undefined,
        program: (document) => {
          playing = document && (PROGRAMS.find(({ text }) => text === JSON.stringify(document))?.hash ?? null);
          if (document) started.push(playing ?? '');
        },
      },
      { software: 'simulated', playing: () => ({ state: 'playing', playing: null }), pieceBytes: 250 },
      world,
    );
    void made.run();
    session = made;
  };

  let checked = 0;
  /** What was reported since the last look is held against what was there. */
  const check = () => {
    for (const { report, whole, now } of server.reports.slice(checked)) {
      checked++;
      const program = PROGRAMS.find(({ hash }) => hash === report.program);
      const lit = report.missing?.neededBy == null || report.missing.neededBy > now;
      if (!program || !lit) continue;
      for (const { asset, by } of needsAt(program, now))
        if (by <= now && !whole.has(asset.sha256))
          wrong.push(`lit without ${FILES.get(asset.sha256)?.name ?? ''} at ${new Date(now).toISOString()}`);
    }
  };

  start();
  for (const step of steps) {
    switch (step.kind) {
      case 'publish':
        server.publish(step.program === null ? null : (PROGRAMS[step.program] ?? null));
        break;
      case 'plan':
        server.plan(
          step.program === null ? null : (PROGRAMS[step.program] ?? null),
          world.time + step.minutes * MINUTE,
        );
        break;
      case 'pass':
        await world.until(world.time + step.minutes * MINUTE, check);
        break;
      case 'restart':
        (session as PlayerSession | null)?.stop();
        await settled();
        start();
        break;
      case 'break':
        server.breakStreams();
        break;
      case 'clock':
        world.skew += step.by;
        break;
      case 'storage':
        store.limitBytes = step.bytes;
        break;
    }
    await settled();
    check();
  }
  // Faults stop, and what is wanted is wanted for good.
  server.calm = true;
  store.limitBytes = 1e9;
  server.plan(null, 0);
  const last = server.program ?? PROGRAMS[1];
  if (!last) throw new Error('no program');
  server.publish(last);
  await world.until(world.time + 40 * MINUTE, check);
  (session as PlayerSession | null)?.stop();
  await settled();

  expect(wrong).toEqual([]);
  expect(playing).toBe(last.hash);
  expect((await store.load()).program).toMatchObject({ hash: last.hash, edition: server.edition });
  const needed = needsOf(JSON.parse(last.text) as ProgramDocument, world.time).map(({ asset }) => asset.sha256);
  expect(
    [...(await store.files())]
      .filter(([, file]) => file.whole)
      .map(([sha256]) => sha256)
      .sort(),
  ).toEqual([...needed].sort());
  expect(server.reports.at(-1)?.report).toMatchObject({
    program: last.hash,
    edition: server.edition,
    missing: null,
    download: null,
  });
}

test('in whatever order things fail, it comes to what is wanted, and never says what is not so', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(acts, { minLength: 1, maxLength: 12 }),
      fc.array(fc.constantFrom(...FAULTS), { minLength: 1, maxLength: 20 }),
      fc.nat(),
      live,
    ),
    { ...runs(120), examples: [[[...BROUGHT_FORWARD], ['none', 'none', 'none', 'portal'], 0]] },
  );
}, 600_000);

test('a token that our server refuses for two minutes is given up; until then what is held plays on', async () => {
  const world = new SimulatedWorld(() => 0.5);
  const store = new ProvingStore(null, 1e9);
  await store.save({ token: TOKEN });
  const server = new SimulatedServer(world, store, () => 'none');
  const told: string[] = [];
  const session = new PlayerSession(
    new ProtocolClient('http://server.test', null, world.now, server.fetch),
    store,
    {
      code: () => undefined,
      screen: (screen) => told.push(screen ? 'paired' : 'unpaired'),
      program: (document) => told.push(document ? 'program' : 'none'),
    },
    { software: 'simulated', playing: () => ({ state: 'playing', playing: null }) },
    world,
  );
  server.publish(PROGRAMS[0] ?? null);
  void session.run();
  await world.until(START + MINUTE);
  expect(told).toEqual(['paired', 'program']);
  server.revoked = true;
  server.breakStreams();
  await world.until(START + 2.5 * MINUTE);
  expect(told).toEqual(['paired', 'program']);
  expect((await store.load()).token).toBe(TOKEN);
  await world.until(START + 5 * MINUTE);
  expect(told).toEqual(['paired', 'program', 'unpaired', 'none']);
  expect(await store.load()).toMatchObject({ token: null, program: null });
  session.stop();
});

describe('what is planned', () => {
  /** A player that plays the first program, and when it started which. */
  async function playing() {
    const world = new SimulatedWorld(() => 0.5);
    const store = new ProvingStore(null, 1e9);
    await store.save({ token: TOKEN });
    const server = new SimulatedServer(world, store, () => 'none');
    const started: (readonly [program: number, at: number])[] = [];
    const coming: (number | null)[] = [];
    const start = () => {
      const session = new PlayerSession(
        new ProtocolClient('http://server.test', null, world.now, server.fetch),
        store,
        {
          code: () => undefined,
          screen: () => undefined,
          program: (document) => {
            started.push([PROGRAMS.findIndex(({ text }) => text === JSON.stringify(document)), world.time - START]);
          },
          coming: (next) => coming.push(next && next.at - START),
        },
        { software: 'simulated', playing: () => ({ state: 'playing', playing: null }) },
        world,
      );
      void session.run();
      return session;
    };
    const first = PROGRAMS[0] ?? null;
    server.publish(first);
    const session = start();
    await world.until(START + MINUTE);
    expect(started.map(([program]) => program)).toEqual([0]);
    return { world, store, server, started, coming, session, start };
  }
  const GALE = PROGRAMS[2] ?? null;
  const OFFERS = PROGRAMS[3] ?? null;

  test('is fetched ahead, and begins on the instant, one after the other', async () => {
    const { world, store, server, started, coming, session } = await playing();
    server.plan(GALE, START + 20 * MINUTE + 250);
    server.plan(OFFERS, START + 25 * MINUTE);
    await world.until(START + 3 * MINUTE);
    expect((await store.load()).coming.map(({ at }) => at - START)).toEqual([20 * MINUTE + 250, 25 * MINUTE]);
    expect(server.reports.at(-1)?.report.ready).toEqual([GALE?.hash, OFFERS?.hash]);
    expect(coming).toEqual([20 * MINUTE + 250]);
    await world.until(START + 30 * MINUTE);
    expect(started.slice(1)).toEqual([
      [2, 20 * MINUTE + 250],
      [3, 25 * MINUTE],
    ]);
    expect((await store.load()).coming).toEqual([]);
    expect(server.reports.at(-1)?.report).toMatchObject({ program: OFFERS?.hash, edition: server.edition, ready: [] });
    session.stop();
  });

  test('begins on the instant without a line, started again too, though the clock of the device is wrong', async () => {
    const { world, store, server, started, session, start } = await playing();
    world.skew = -7 * MINUTE;
    server.plan(GALE, START + 20 * MINUTE);
    await world.until(START + 5 * MINUTE);
    server.cut = true;
    server.breakStreams();
    session.stop();
    await settled();
    const again = start();
    await world.until(START + 40 * MINUTE);
    expect(started.slice(1)).toEqual([
      [0, 5 * MINUTE],
      [2, 20 * MINUTE],
    ]);
    expect((await store.load()).program?.hash).toBe(GALE?.hash);
    // The line is back: it is what the server says by now, and nothing starts anew.
    server.cut = false;
    await world.until(START + 45 * MINUTE);
    expect(started).toHaveLength(3);
    again.stop();
  });

  /** It is told with the line's last words: nothing more can be fetched, until the line is back. */
  const cutAfterWord = async ({ world, server }: Awaited<ReturnType<typeof playing>>) => {
    server.cut = true;
    await world.until(world.time + MINUTE);
    server.breakStreams();
  };

  test('which comes with other files begins on the instant by those that are here, where the others are not', async () => {
    const all = await playing();
    const { world, store, server, started, session, start } = all;
    server.plan(GALE, START + 20 * MINUTE);
    await world.until(START + 4 * MINUTE);
    // Something else was published before it: it is written again, and so another edition gives the same.
    server.plan(GALE, START + 20 * MINUTE, 'written again');
    await world.until(START + 5 * MINUTE);
    server.refit(GALE, OFFERS);
    await cutAfterWord(all);
    session.stop();
    await settled();
    const again = start();
    await world.until(START + 25 * MINUTE);
    expect(started.slice(1)).toEqual([
      [0, 6 * MINUTE],
      [2, 20 * MINUTE],
    ]);
    server.cut = false;
    await world.until(START + 40 * MINUTE);
    expect(started.slice(3).map(([program]) => program)).toEqual([3]);
    expect((await store.load()).program?.hash).toBe(OFFERS?.hash);
    again.stop();
  });

  test('which another edition takes the place of does not begin, though the other is not here', async () => {
    const all = await playing();
    const { world, server, started, session } = all;
    server.plan(GALE, START + 20 * MINUTE);
    await world.until(START + 5 * MINUTE);
    server.coming = [];
    server.plan(OFFERS, START + 20 * MINUTE);
    await cutAfterWord(all);
    await world.until(START + 25 * MINUTE);
    expect(started).toHaveLength(1);
    session.stop();
  });

  test('moved it begins then, called off never', async () => {
    const { world, store, server, started, coming, session } = await playing();
    server.plan(GALE, START + 10 * MINUTE);
    await world.until(START + 2 * MINUTE);
    server.plan(GALE, START + 15 * MINUTE);
    server.plan(OFFERS, START + 18 * MINUTE);
    await world.until(START + 16 * MINUTE);
    server.plan(null, 0);
    await world.until(START + 30 * MINUTE);
    expect(started.slice(1)).toEqual([[2, 15 * MINUTE]]);
    expect(coming.at(-1)).toBeNull();
    expect((await store.load()).coming).toEqual([]);
    session.stop();
  });

  test('a clock that jumps in between, found out by an answer: it still begins on the instant', async () => {
    const { world, server, started, session } = await playing();
    server.plan(GALE, START + 20 * MINUTE);
    await world.until(START + 5 * MINUTE);
    world.skew = 3 * MINUTE;
    await world.until(START + 30 * MINUTE);
    expect(started.slice(1)).toEqual([[2, 20 * MINUTE]]);
    session.stop();
  });
});

test('players whose line broke at once do not come back in step', async () => {
  const waits = new Set(Array.from({ length: 50 }, () => Math.round(backoffMs(0, { random: Math.random }) / 20)));
  expect(waits.size).toBeGreaterThan(20);
  const fixed = { random: () => 1 };
  const grown = [0, 1, 2, 3, 4, 5, 20].map((failures) => backoffMs(failures, fixed));
  expect(grown).toEqual([2, 4, 8, 16, 32, 60, 60].map((seconds) => seconds * SECOND));
});

test('without faults a program of two files starts after it has both', async () => {
  await live(
    [
      { kind: 'publish', program: 0 },
      { kind: 'pass', minutes: 5 },
    ],
    ['none'],
    1,
  );
});

test('storage that is too small for old and new: what nothing needs any more makes room', async () => {
  await live(
    [
      { kind: 'publish', program: 1 },
      { kind: 'pass', minutes: 70 },
      { kind: 'storage', bytes: 2600 },
      { kind: 'publish', program: 2 },
      { kind: 'pass', minutes: 100 },
      { kind: 'publish', program: 0 },
      { kind: 'pass', minutes: 70 },
    ],
    ['none'],
    3,
  );
});
