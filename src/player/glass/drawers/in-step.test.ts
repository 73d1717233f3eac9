import { keepInStep, speedFor } from './in-step';

/** A film as a browser plays it: it moves on with its own speed, and calls back at each of its 25 frames a second. */
class PlayedFilm {
  duration = 60;
  playbackRate = 1;
  currentTime = 0;
  jumps = 0;
  private asked: VideoFrameRequestCallback | null = null;

  /** `drift` is how much faster than asked it really plays. */
  constructor(
    private readonly clock: { now: number },
    atMs: number,
    private readonly drift = 0,
  ) {
    this.currentTime = atMs / 1000;
  }
  requestVideoFrameCallback(look: VideoFrameRequestCallback) {
    this.asked = look;
    return 1;
  }
  cancelVideoFrameCallback() {
    this.asked = null;
  }
  isLookedAt() {
    return this.asked !== null;
  }
  frame() {
    const before = this.currentTime + 0.04 * this.playbackRate * (1 + this.drift);
    this.currentTime = before;
    const { asked } = this;
    this.asked = null;
    asked?.(this.clock.now, {} as VideoFrameCallbackMetadata);
    if (this.currentTime !== before) this.jumps++;
  }
}

/** Plays for some seconds; says how far off it was in the last of them, at most, in milliseconds. */
function play(film: PlayedFilm, clock: { now: number }, seconds: number): number {
  let worst = 0;
  for (let i = 0; i < seconds * 25; i++) {
    clock.now += 40;
    film.frame();
    if (i >= (seconds - 1) * 25) worst = Math.max(worst, Math.abs(clock.now - film.currentTime * 1000));
  }
  return worst;
}

beforeEach(() => void (clock.now = 0));
const clock = { now: 0 };
const begin = (atMs: number, drift = 0) => {
  const film = new PlayedFilm(clock, atMs, drift);
  return { film, stop: keepInStep(film as unknown as HTMLVideoElement, () => clock.now) };
};

test.each([0, 120, -120, 390, -390])(
  'a film that begins %i ms off is in step within a frame soon, without a jump',
  (atMs) => {
    const { film } = begin(atMs);
    expect(play(film, clock, 8)).toBeLessThan(1000 / 60);
    expect(film.jumps).toBe(0);
  },
);

test.each([5000, -5000 + 60_000])('one that is far off (%i ms) jumps once, and goes on at its own speed', (atMs) => {
  const { film } = begin(atMs);
  expect(play(film, clock, 4)).toBeLessThan(8);
  expect([film.jumps, film.playbackRate]).toEqual([1, 1]);
});

test.each([0.001, -0.001])('one that plays %d faster than it says stays in step for a minute', (drift) => {
  const { film } = begin(0, drift);
  film.duration = 600;
  expect(play(film, clock, 60)).toBeLessThan(1000 / 60);
  expect(film.jumps).toBe(0);
});

test('at its end, and when it is let go, it is left alone', () => {
  const { film, stop } = begin(0);
  film.duration = 0.3;
  clock.now = 5000;
  film.frame();
  expect([film.jumps, film.playbackRate]).toEqual([0, 1]);
  film.playbackRate = 1.05;
  stop();
  expect([film.isLookedAt(), film.playbackRate]).toEqual([false, 1]);
});

test('its speed doesn’t change with every frame: what is near stays as it was', () => {
  expect([speedFor(5, 1), speedFor(5, 1.05), speedFor(3, 1.05), speedFor(401, 1)]).toEqual([1, 1.01, 1, null]);
});
