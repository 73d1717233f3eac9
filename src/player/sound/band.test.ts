import type { ProgramDocument } from '@/core/edition';
import { programOf } from '@/core/tests/program-of';
import { smallPlan } from '@/core/tests/small-plan';
import { Band } from './band';
import type { Cue } from './speaker';

const NOON = Date.UTC(2026, 10, 25, 12);
const SECOND = 1_000;

/** A screen whose backdrop has music, 4 s and 3 s in turn from midnight on, and a notice without any at 12:01. */
function program({ music = true } = {}): ProgramDocument {
  const sound = (id: string, durationMs: number) => ({ id, kind: 'sound', durationMs, type: 'audio/mp4' });
  const plan = smallPlan({
    network: { backdrop: { playlist: 'loop' } },
    screens: ['hall'],
    media: [{ id: 'one', type: 'image/png' }, sound('waves', 4_000), sound('gulls', 3_000)].map((file) => ({
      ...{ sha256: 'a'.repeat(64), ...file },
    })),
    playlists: [
      { id: 'loop', items: ['one'], ...(music ? { music: { playlist: 'sea', volume: 0.4 } } : {}) },
      { id: 'sea', items: ['waves', 'gulls'] },
    ],
    bookings: [{ when: { windows: [['12:01', '12:02']] } }],
  });
  return programOf(plan, 'hall').document;
}

/** A speaker that writes down what it is asked for, and goes on by the steady clock. */
class TestSpeaker {
  readonly done: string[] = [];
  fails: string | null = null;
  offMs = 0;
  private heard: { media: string; since: number } | null = null;

  prepare({ media }: Cue): void {
    this.done.push(`prepare ${media}`);
  }
  async play({ media, volume }: Cue, _asset: unknown, offset: () => number, wanted: () => boolean) {
    await Promise.resolve();
    if (this.fails) throw new Error(this.fails);
    if (!wanted()) return;
    this.offMs = 0;
    this.heard = { media, since: Date.now() - offset() };
    this.done.push(`${media} from ${offset()} at ${volume}`);
  }
  playing() {
    return this.heard && { media: this.heard.media, atMs: Date.now() - this.heard.since + this.offMs };
  }
  silence(): void {
    if (this.heard) this.done.push('silence');
    this.heard = null;
  }
}

/** How far the corrected time is ahead of the test's own clock. */
let ahead: number;
let band: Band;
let speaker: TestSpeaker;
const told: string[] = [];
// Midnight is 43 200 s before: 6 171 rounds of 7 s, and 3 s.
const START = NOON - 3 * SECOND;

beforeEach(() => {
  jest.useFakeTimers({ now: START });
  ahead = 0;
  told.length = 0;
  const now = () => Date.now() + ahead;
  speaker = new TestSpeaker();
  band = new Band(speaker, now, (message) => told.push(message));
});
afterEach(() => {
  band.stop();
  jest.useRealTimers();
});
const pass = (ms: number) => jest.advanceTimersByTimeAsync(ms);
const done = () => speaker.done.splice(0);

test('music goes in rounds of its own from where the loop began; each is loaded before its turn', async () => {
  band.play(program());
  await pass(0);
  expect(done()).toEqual(['prepare gulls', 'waves from 0 at 0.4']);
  await pass(4 * SECOND);
  expect(done()).toEqual(['prepare waves', 'gulls from 0 at 0.4']);
  await pass(3 * SECOND);
  expect(done()).toEqual(['prepare gulls', 'waves from 0 at 0.4']);
});

test('one who joins in the middle hears the middle', async () => {
  await pass(1_500);
  band.play(program());
  await pass(0);
  expect(done()).toContain('waves from 1500 at 0.4');
});

test('what has no music is silent, and it goes on after it where it would be', async () => {
  band.play(program());
  await pass(62 * SECOND);
  done();
  await pass(SECOND);
  expect(done()).toEqual(expect.arrayContaining(['silence']));
  await pass(59 * SECOND);
  expect(speaker.playing()).toBeNull();
  expect(done()).toEqual(['prepare gulls']);
  await pass(SECOND);
  // 12:02 is 43 320 s after midnight: 6 188 rounds of 7 s, and 4 s: the second sound begins.
  expect(done()).toContain('gulls from 0 at 0.4');
});

test('without a program, or one with music, nothing is heard', async () => {
  band.play(program());
  await pass(0);
  done();
  band.play(program({ music: false }));
  expect(done()).toEqual(['silence']);
  band.play(program());
  await pass(0);
  done();
  band.play(null);
  expect(done()).toEqual(['silence']);
});

test('the same program again, as after each publication, does not begin a sound anew', async () => {
  band.play(program());
  await pass(SECOND);
  done();
  band.play(program());
  await pass(SECOND);
  expect(done().filter((line) => line.includes('from'))).toEqual([]);
});

test('a clock that jumps, and a sound that stands still, are put right within a second', async () => {
  band.play(program());
  await pass(100);
  done();
  ahead = 2 * SECOND;
  await pass(SECOND);
  expect(done().filter((line) => line.includes('from'))).toEqual(['waves from 3000 at 0.4']);
  speaker.offMs = -400;
  await pass(SECOND);
  expect(done().filter((line) => line.includes('from'))).toHaveLength(1);
});

test('a clock that jumps to another sound, or out of its time, is followed', async () => {
  band.play(program());
  await pass(100);
  done();
  ahead = 5 * SECOND;
  await pass(1_000);
  expect(done()).toContain('gulls from 2000 at 0.4');
  ahead = 65 * SECOND;
  await pass(1_000);
  expect(done()).toContain('silence');
});

test('what can not be played is told, and tried again; the next comes in its turn', async () => {
  speaker.fails = 'no decoder';
  band.play(program());
  await pass(100);
  expect(told).toEqual(['no decoder']);
  speaker.fails = null;
  await pass(4 * SECOND);
  expect(done()).toContain('gulls from 0 at 0.4');
});

test('a sound shorter than the time in which the next is loaded takes what was prepared of it before another is', async () => {
  const asked: string[] = [];
  band.stop();
  band = new Band(
    {
      prepare: ({ media }) => void asked.push(`prepare ${media}`),
      play: ({ media }) => Promise.resolve(void asked.push(`play ${media}`)),
      playing: () => null,
      silence: () => undefined,
    },
    () => Date.now(),
    (message) => told.push(message),
  );
  band.play(program());
  await pass(7_500);
  expect(asked).toEqual([
    ...['play waves', 'prepare gulls', 'play gulls', 'prepare waves', 'play waves', 'prepare gulls'],
  ]);
});
