import type { ProgramDocument } from '@/core/edition';
import { programOf } from '@/core/tests/program-of';
import { smallPlan } from '@/core/tests/small-plan';
import { Conductor, type Draw, type Scene } from './conductor';
import { drawWithin } from './scene';
import type { Thing } from './stage';

const NOON = Date.UTC(2026, 10, 25, 12);
const MINUTE = 60_000;

/** A screen's program: a backdrop of two stills of 10 s each, and what the plan says besides. */
function program({
  items = ['one', 'two'],
  lightsOut = [],
  bookings = [],
}: { bookings?: object[]; lightsOut?: object[]; items?: unknown[] } = {}): ProgramDocument {
  const plan = smallPlan({
    network: { backdrop: { playlist: 'loop' } },
    screens: [{ id: 'hall', lightsOut }],
    media: ['one', 'two', 'notice'].map((id) => ({ id, sha256: 'a'.repeat(64), type: 'image/png' })),
    playlists: [{ id: 'loop', items }],
    bookings: bookings.map((one) => ({ content: { media: 'notice' }, ...one })),
  });
  return programOf(plan, 'hall').document;
}

/** A stage that writes down what it is asked for, and loads as the test says. */
class TestStage {
  readonly done: string[] = [];
  readonly shows: { media: string; offset: () => number; wanted: () => boolean }[] = [];
  loading: (media: string) => Promise<void> = () => Promise.resolve();
  /** Where a film stands, by the test's word; without it what is shown is a still. */
  film: (() => { atMs: number; lengthMs: number }) | null = null;
  private shown: string | null = null;

  prepare({ name }: Thing): Promise<void> {
    this.done.push(`prepare ${name}`);
    return Promise.resolve();
  }
  async show({ name: media }: Thing, offset: () => number, wanted: () => boolean): Promise<void> {
    this.shows.push({ media, offset, wanted });
    await this.loading(media);
    if (!wanted()) return;
    this.shown = media;
    this.done.push(`show ${media} at ${offset()}`);
  }
  clear(): void {
    this.shown = null;
    this.done.push('clear');
  }
  seen() {
    return this.shown === null ? null : { media: this.shown, film: this.film?.() ?? null };
  }
  /** Whatever was asked for, this is seen now: a browser that went wrong. */
  sticks(media: string | null): void {
    this.shown = media;
  }
}

function conduct(draw?: Draw) {
  const stage = new TestStage();
  const scenes: Scene[] = [];
  const failures: string[] = [];
  const clock = { offsetMs: 0 };
  let takeovers = 0;
  const drills: boolean[] = [];
  const conductor = new Conductor(
    stage,
    () => Date.now() + clock.offsetMs,
    (scene) => scenes.push(scene),
    (message) => failures.push(message),
    undefined,
    () => takeovers++,
    (is) => drills.push(is),
    draw,
  );
  const pass = async (ms: number) => {
    stage.done.length = 0;
    await jest.advanceTimersByTimeAsync(ms);
    return stage.done;
  };
  return { conductor, stage, scenes, failures, clock, pass, takeovers: () => takeovers, drills };
}

beforeEach(() => jest.useFakeTimers({ now: NOON }));
afterEach(() => jest.useRealTimers());

test('what is on is shown from where it is by now, and the next is prepared 5 s ahead and shown on the instant', async () => {
  // The backdrop's clock begins at midnight: 12:00:04 is 4 s into the first still.
  jest.setSystemTime(NOON + 4_000);
  const { conductor, scenes, pass } = conduct();
  conductor.play(program());
  expect(await pass(0)).toEqual(['show one at 4000']);
  expect(scenes).toEqual(['playing']);
  expect(conductor.playing()).toEqual({
    state: 'playing',
    playing: { media: 'one', source: 'backdrop', id: 'network', since: NOON + 4_000 },
  });
  expect(await pass(999)).toEqual([]);
  expect(await pass(1)).toEqual(['prepare two']);
  expect(await pass(4_999)).toEqual([]);
  expect(await pass(1)).toEqual(['show two at 0']);
  expect(await pass(10_000)).toEqual(['prepare one', 'show one at 0']);
});

test('a booking begins and ends on the instant, and is told with its id', async () => {
  const { conductor, pass } = conduct();
  conductor.play(program({ bookings: [{ id: 'sale', when: { windows: [['12:01', '12:02']] } }] }));
  await pass(MINUTE - 1);
  expect(conductor.playing().playing).toMatchObject({ source: 'backdrop' });
  expect(await pass(1)).toEqual(['show notice at 0']);
  expect(conductor.playing().playing).toEqual({
    ...{ media: 'notice', source: 'booking', id: 'sale' },
    since: NOON + MINUTE,
  });
  await pass(MINUTE);
  expect(conductor.playing().playing).toMatchObject({ source: 'backdrop', id: 'network' });
});

test('since when a booking is seen is told, and a takeover that comes or goes at once', async () => {
  const takeover = { id: 'gale', takeover: true, when: { windows: [['12:00:05', '12:01']] } };
  const later = { id: 'after', when: { windows: [['12:01', '12:02']] } };
  const { conductor, pass, takeovers } = conduct();
  conductor.play(program({ bookings: [takeover, later] }));
  await pass(4_999);
  expect(conductor.playing().playing).toMatchObject({ source: 'backdrop', since: NOON });
  expect(takeovers()).toBe(0);
  await pass(1);
  expect(conductor.playing().playing).toMatchObject({ id: 'gale', since: NOON + 5_000 });
  expect(takeovers()).toBe(1);
  await pass(54_999);
  expect(conductor.playing().playing).toMatchObject({ id: 'gale', since: NOON + 5_000 });
  // The same picture goes on, and is another booking's.
  await pass(1);
  expect(conductor.playing().playing).toMatchObject({ id: 'after', since: NOON + MINUTE });
  expect(takeovers()).toBe(2);
  await pass(MINUTE);
  expect(takeovers()).toBe(2);
  conductor.stop();
});

test('a drill is marked for as long as it is seen, and not what it stands over', async () => {
  const { conductor, pass, drills } = conduct();
  conductor.play(
    program({ bookings: [{ id: 'gale', takeover: true, drill: true, when: { windows: [['12:01', '12:02']] } }] }),
  );
  await pass(MINUTE - 1);
  expect(drills.at(-1)).toBe(false);
  await pass(1);
  expect(drills.at(-1)).toBe(true);
  await pass(MINUTE);
  expect(drills.at(-1)).toBe(false);
  conductor.stop();
});

test('in lights-out the stage is cleared and the display rests; afterwards it plays again', async () => {
  const { conductor, scenes, pass } = conduct();
  conductor.play(program({ lightsOut: [{ windows: [['12:00', '12:30']] }] }));
  expect(await pass(0)).toEqual([]);
  expect(scenes).toEqual(['resting']);
  expect(conductor.playing()).toEqual({ state: 'resting', playing: null });
  expect(await pass(30 * MINUTE - 5_001)).not.toContain('prepare one');
  expect(await pass(1)).toEqual(['prepare one']);
  expect(await pass(5_000)).toEqual(['show one at 0']);
  expect([...new Set(scenes)]).toEqual(['resting', 'playing']);
});

test('without a program, or with nothing to show, the stage is cleared', async () => {
  const { conductor, stage, scenes } = conduct();
  conductor.play(null);
  expect(stage.done).toEqual(['clear']);
  conductor.play(program({ items: [{ media: 'one', when: { to: '2026-01-01' } }] }));
  expect(stage.done).toEqual(['clear', 'clear']);
  expect(scenes).toEqual(['empty', 'empty']);
  expect(conductor.playing()).toEqual({ state: 'empty', playing: null });
});

test('a new program goes on with what is on already, and shows at once what is not', async () => {
  const { conductor, pass } = conduct();
  conductor.play(program());
  await pass(0);
  conductor.play(program({ bookings: [{ id: 'later', when: { windows: [['14:00', '15:00']] } }] }));
  expect(await pass(1_000)).toEqual([]);
  conductor.play(program({ bookings: [{ id: 'now', takeover: true }] }));
  expect(await pass(0)).toEqual(['show notice at 1000']);
});

test('a layout that stays is drawn again when a published change alters it, and for no other change', async () => {
  const board = (text: string, { name = 'Hall', sha256 = 'a'.repeat(64) } = {}) =>
    programOf(
      smallPlan({
        network: { name, backdrop: { layout: 'board' } },
        screens: [{ id: 'hall', ...(name === 'Hall' ? {} : { lightsOut: [{ windows: [['01:00', '02:00']] }] }) }],
        bulletins: [{ id: 'words', text }],
        media: [{ id: 'one', sha256, type: 'image/png' }],
        layouts: [
          {
            id: 'board',
            zones: [
              { id: 'main', content: { bulletin: 'words' } },
              { id: 'side', content: { media: 'one' } },
            ],
          },
        ],
      }),
      'hall',
    ).document;
  const stage = () => {
    throw new Error('Nothing is drawn here.');
  };
  const { conductor, pass } = conduct(drawWithin({ now: Date.now, report: () => undefined, stage }));
  conductor.play(board('Gate 2'));
  expect(await pass(0)).toEqual([expect.stringMatching(/^show board/)]);
  conductor.play(board('Gate 2', { name: 'Other' }));
  expect(await pass(1000)).toEqual([]);
  conductor.play(board('Gate 3'));
  expect(await pass(0)).toEqual([expect.stringMatching(/^show board/)]);
  // A new version of a file in a zone.
  conductor.play(board('Gate 3', { sha256: 'b'.repeat(64) }));
  expect(await pass(0)).toEqual([expect.stringMatching(/^show board/)]);
});

test('what takes over at an instant is prepared before, and shown on it; called off, it is neither', async () => {
  const { conductor, stage, pass } = conduct();
  conductor.play(program());
  const later = program({ bookings: [{ id: 'b', when: { from: '2026-11-01' } }] });
  await pass(0);
  conductor.follow({ at: NOON + 7_300, program: later });
  expect(await pass(2_299)).toEqual([]);
  expect(await pass(1)).toEqual(['prepare notice']);
  expect(await pass(4_999)).toEqual([]);
  // Its next turn, of the same picture, is not far.
  expect(await pass(1)).toEqual(['prepare notice', 'show notice at 7300']);
  expect(stage.seen()?.media).toBe('notice');
  // The session says the same a moment later: what is on goes on.
  conductor.play(later);
  expect(await pass(0)).toEqual([]);
  conductor.play(program());
  conductor.follow({ at: NOON + 30_000, program: later });
  conductor.follow(null);
  const done = await pass(40_000);
  expect(done.filter((what) => what.includes('notice'))).toEqual([]);
  conductor.stop();
});

test('what takes over and shows the same goes on without a change', async () => {
  const { conductor, pass } = conduct();
  conductor.play(program());
  await pass(0);
  const same = program({ bookings: [{ id: 'b', when: { from: '2027-11-01' } }] });
  conductor.follow({ at: NOON + 5_000, program: same });
  expect(await pass(9_999)).toEqual(['prepare two']);
  expect(await pass(1)).toEqual(['show two at 0']);
  conductor.stop();
});

test('what can not be shown is told, and tried again when a file has come, not before', async () => {
  const { conductor, stage, scenes, failures, pass } = conduct();
  stage.loading = () => Promise.reject(new Error('"one" is not here yet.'));
  conductor.play(program());
  await pass(0);
  expect(failures).toEqual(['"one" is not here yet.']);
  expect(scenes).toEqual([]);
  stage.loading = () => Promise.resolve();
  expect(await pass(3_000)).toEqual([]);
  conductor.look();
  expect(await pass(0)).toEqual(['show one at 3000']);
  expect(scenes).toEqual(['playing']);
  conductor.look();
  expect(await pass(0)).toEqual([]);
});

test('what follows a long item is prepared in time, wherever the working out ends', async () => {
  const { conductor, pass } = conduct();
  conductor.play(program({ items: [LONG, { media: 'two' }] }));
  // The loop of 20 min 10 s began at midnight: its first item comes anew at 12:06.
  await pass(6 * MINUTE);
  expect(await pass(20 * MINUTE - 5_001)).not.toContain('prepare two');
  expect(await pass(1)).toEqual(['prepare two']);
  expect(await pass(5_000)).toEqual(['show two at 0']);
});

test.each([585, 590, 595, 600, 605, 610, 1185, 1195, 1200, 1205])(
  'what follows after %i s is prepared 5 s before, to the millisecond',
  async (seconds) => {
    jest.setSystemTime(Date.UTC(2026, 10, 25));
    const { conductor, stage, pass } = conduct();
    conductor.play(program({ items: [{ media: 'one', durationMs: seconds * 1000 }, { media: 'two' }] }));
    await pass((seconds - 5) * 1000 - 1);
    expect(stage.done).not.toContain('prepare two');
    // A second time changes nothing on the stage.
    expect([...new Set(await pass(1))]).toEqual(['prepare two']);
    expect(await pass(5_000)).toEqual(['show two at 0']);
  },
);

test('what another program would have shown next is not prepared any more', async () => {
  const { conductor, pass } = conduct();
  conductor.play(program());
  await pass(3_000);
  conductor.play(program({ items: [{ media: 'one' }, { media: 'notice' }] }));
  expect(await pass(2_000)).toEqual(['prepare notice']);
  conductor.play(null);
  expect(await pass(20_000)).toEqual([]);
});

test('a program that lacks a file says which', async () => {
  const { conductor, failures, pass } = conduct();
  const whole = program();
  const { one: _one, ...assets } = whole.assets;
  conductor.play({ ...whole, assets });
  await pass(0);
  expect(failures).toEqual(['“one” is missing in the program.']);
});

test('what is still loading when its turn is over is not shown', async () => {
  const { conductor, stage, pass } = conduct();
  let loaded = () => {};
  stage.loading = (media) => (media === 'one' ? new Promise((resolve) => (loaded = resolve)) : Promise.resolve());
  conductor.play(program());
  await pass(10_000);
  expect(stage.shows.map(({ media, wanted }) => [media, wanted()])).toEqual([
    ['one', false],
    ['two', true],
  ]);
  loaded();
  expect(await pass(0)).toEqual([]);
  expect(conductor.playing().playing).toMatchObject({ media: 'two' });
});

describe('a clock that jumps', () => {
  const sale = () => program({ bookings: [{ id: 'sale', when: { windows: [['12:05', '12:10']] } }], items: [LONG] });

  test.each([5 * MINUTE, -7 * MINUTE])(
    'by %i ms: what was due by the old one is thought anew within a second',
    async (jump) => {
      jest.setSystemTime(NOON + (jump < 0 ? 7 * MINUTE : 0));
      const { conductor, clock, stage, pass } = conduct();
      conductor.play(sale());
      await pass(1_500);
      clock.offsetMs = jump;
      expect(await pass(1_000)).toContainEqual(
        expect.stringMatching(jump < 0 ? /^show one at/ : /^show notice at \d+$/),
      );
      // What follows comes on the instant of the new clock.
      const left = (jump < 0 ? 5 : 10) * MINUTE - (Date.now() + jump - NOON);
      expect(await pass(left - 1)).not.toContainEqual(expect.stringMatching(jump < 0 ? /^show notice/ : /^show one/));
      expect(await pass(1)).toEqual([jump < 0 ? 'show notice at 0' : expect.stringMatching(/^show one at/)]);
      expect(stage.seen()).toMatchObject({ media: jump < 0 ? 'notice' : 'one' });
    },
  );

  test('that is fast at the start, put right by the first answer: the stage does not stand on the last frame', async () => {
    const { conductor, clock, failures, pass } = conduct();
    clock.offsetMs = 7 * MINUTE;
    conductor.play(program());
    await pass(300);
    clock.offsetMs = 0;
    await pass(1_000);
    expect(await pass(9_000)).toEqual(['prepare two', 'show two at 0']);
    expect(failures).toEqual([]);
  });

  test('moves a film to what is due by now; a correction of some tenths of a second leaves it alone', async () => {
    const { conductor, stage, clock, pass } = conduct();
    let began = 0;
    stage.film = () => ({ atMs: Date.now() - began, lengthMs: 20 * MINUTE });
    began = Date.UTC(2026, 10, 25, 11, 40);
    conductor.play(program({ items: [LONG] }));
    await pass(1_500);
    clock.offsetMs = 400;
    expect(await pass(2_000)).toEqual([]);
    clock.offsetMs = 3_000;
    expect(await pass(1_000)).toEqual([expect.stringMatching(/^show one at \d+$/)]);
  });
});

describe('a stage that stands still', () => {
  test('is seen within seconds, told, and begun anew', async () => {
    const { conductor, stage, failures, pass } = conduct();
    conductor.play(program({ items: [LONG] }));
    await pass(1_500);
    stage.sticks('two');
    expect(await pass(5_000)).toEqual([]);
    expect(await pass(1_000)).toEqual([expect.stringMatching(/^show one at/)]);
    expect(failures).toEqual(['“one” was due but didn’t show for 5 s, so it is being started again.']);
    expect(await pass(MINUTE)).toEqual([]);
    // What stands still again and again is told less often.
    setInterval(() => stage.sticks('two'), 900);
    await pass(5 * MINUTE);
    expect(failures.length).toBeLessThan(14);
  });

  test('a film that does not move is none that plays; its last frame may stand', async () => {
    const { conductor, stage, failures, pass } = conduct();
    let atMs = 1_000;
    stage.film = () => ({ atMs, lengthMs: 10 * MINUTE });
    jest.setSystemTime(Date.UTC(2026, 10, 25));
    conductor.play(program({ items: [LONG] }));
    await pass(7_500);
    expect(failures).toEqual([
      expect.stringMatching(/“one” was due but didn’t show for 5 s, so it is being started again./),
    ]);
    const moving = setInterval(() => (atMs += 100), 100);
    await pass(10 * MINUTE);
    clearInterval(moving);
    expect(failures).toHaveLength(1);
    atMs = 10 * MINUTE;
    await pass(3 * MINUTE);
    expect(failures).toHaveLength(1);
  });

  test('what shows where nothing is due is taken away', async () => {
    const { conductor, stage, failures, pass } = conduct();
    conductor.play(program({ lightsOut: [{ windows: [['12:00', '12:30']] }] }));
    await pass(1_500);
    stage.sticks('one');
    await pass(6_500);
    expect(stage.seen()).toBeNull();
    expect(failures).toEqual(['“one” was still showing 5 s after its end, so it was removed.']);
  });

  test('what loads for long is waited for, and asked for again after half a minute; what failed too, told once', async () => {
    const { conductor, stage, failures, pass } = conduct();
    stage.loading = () => new Promise(() => undefined);
    conductor.play(program({ items: [LONG] }));
    await pass(29_000);
    expect(stage.shows).toHaveLength(1);
    await pass(3_000);
    expect(stage.shows).toHaveLength(2);
    expect(failures).toEqual(['“one” was due but didn’t show for 30 s, so it is being started again.']);
    stage.loading = () => Promise.reject(new Error('no decoder'));
    await pass(31_000);
    expect(failures.slice(1)).toEqual([expect.stringMatching(/30 s/), 'no decoder']);
    stage.loading = () => Promise.resolve();
    expect(await pass(31_000)).toEqual([expect.stringMatching(/^show one at/)]);
    expect(failures).toHaveLength(3);
  });

  test('nobody looks after a stage that was given up', async () => {
    const { conductor, stage, pass } = conduct();
    conductor.play(program());
    await pass(1_500);
    conductor.stop();
    stage.sticks(null);
    expect(await pass(MINUTE)).toEqual([]);
  });
});

const LONG = { media: 'one', durationMs: 20 * MINUTE };

test('turns shorter than the time in which the next is loaded show what was prepared: that is taken before another is', async () => {
  const items = ['one', 'two', 'notice'].map((media) => ({ media, durationMs: 2_000 }));
  const asked: string[] = [];
  const stage = Object.assign(new TestStage(), {
    prepare: ({ name }: Thing) => Promise.resolve(void asked.push(`prepare ${name}`)),
    show: ({ name }: Thing) => Promise.resolve(void asked.push(`show ${name}`)),
  });
  jest.useFakeTimers({ now: NOON });
  const nothing = () => undefined;
  const conductor = new Conductor(stage, () => Date.now(), nothing, nothing);
  conductor.play(program({ items }));
  await jest.advanceTimersByTimeAsync(5_900);
  conductor.stop();
  jest.useRealTimers();
  expect(asked).toEqual(['show one', 'prepare two', 'show two', 'prepare notice', 'show notice', 'prepare one']);
});
