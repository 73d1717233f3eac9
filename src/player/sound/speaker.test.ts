/** @jest-environment @stryker-mutator/jest-runner/jest-env/jsdom */
import type { SoundAsset } from '@/core/playing';
import { Speaker, type Cue } from './speaker';
import { NO_SOUND } from './no-sound';

const sound = (sha256: string): SoundAsset => ({ kind: 'sound', sha256, bytes: 1, type: 'audio/mp4' });

const urls = new Set<string>();
let play: jest.Mock<Promise<void>, []>;
let load: (element: HTMLMediaElement) => void;
/** Elements in the order in which they were given something. */
let elements: HTMLMediaElement[];
/** How long a sound is, in seconds: too long to be decoded whole, where nothing else is said. */
let lengthS: number;

beforeEach(() => {
  urls.clear();
  elements = [];
  lengthS = 400;
  play = jest.fn(() => Promise.resolve());
  load = (element) => element.dispatchEvent(new Event('canplay'));
  let count = 0;
  URL.createObjectURL = () => {
    const url = `blob:${++count}`;
    urls.add(url);
    return url;
  };
  URL.revokeObjectURL = (url) => void urls.delete(url);
  // jsdom does not play.
  HTMLMediaElement.prototype.play = () => play();
  HTMLMediaElement.prototype.pause = jest.fn();
  HTMLMediaElement.prototype.load = () => undefined;
  Object.defineProperty(HTMLMediaElement.prototype, 'duration', { configurable: true, get: () => lengthS });
  Object.defineProperty(HTMLMediaElement.prototype, 'src', {
    configurable: true,
    set(this: HTMLMediaElement) {
      elements.push(this);
      queueMicrotask(() => load(this));
    },
  });
});

const yes = () => true;
const cue = (media: string, volume = 1, start = 0): Cue => ({ media, start, volume });
const newSpeaker = (open: (sha256: string) => Promise<Blob | null> = () => Promise.resolve(new Blob(['x']))) => {
  const told: string[] = [];
  return { speaker: new Speaker(open, (message) => told.push(message)), told };
};

test('a sound is heard at its volume, from where it is by now', async () => {
  const { speaker } = newSpeaker();
  expect(speaker.playing()).toBeNull();
  await speaker.play(cue('waves', 0.4), sound('waves'), () => 7_500, yes);
  expect(elements[0]).toMatchObject({ volume: 0.4, currentTime: 7.5 });
  expect(speaker.playing()).toEqual({ media: 'waves', atMs: 7_500 });
});

test('near its beginning, and past its end, it begins at its beginning', async () => {
  const { speaker } = newSpeaker();
  await speaker.play(cue('waves', 1), sound('waves'), () => 90, yes);
  await speaker.play(cue('gulls', 1), sound('gulls'), () => 400_000, yes);
  expect(elements.map(({ currentTime }) => currentTime)).toEqual([0, 0]);
});

test('what is prepared is loaded once, and what was heard gives its bytes back', async () => {
  const open = jest.fn(() => Promise.resolve(new Blob(['x'])));
  const { speaker } = newSpeaker(open);
  await speaker.play(cue('waves', 1), sound('waves'), () => 0, yes);
  speaker.prepare(cue('gulls'), sound('gulls'), () => 5_000);
  speaker.prepare(cue('gulls'), sound('gulls'), () => 5_000);
  await speaker.play(cue('gulls', 1), sound('gulls'), () => 0, yes);
  expect(open).toHaveBeenCalledTimes(2);
  expect([...urls]).toEqual(['blob:2']);
});

test('something else that is prepared, and silence, give back what they held', async () => {
  const { speaker } = newSpeaker();
  speaker.prepare(cue('waves'), sound('waves'), () => 5_000);
  speaker.prepare(cue('gulls'), sound('gulls'), () => 5_000);
  await speaker.play(cue('bell', 1), sound('bell'), () => 0, yes);
  speaker.silence();
  await new Promise((settled) => setTimeout(settled));
  expect(speaker.playing()).toBeNull();
  expect(urls.size).toBe(0);
});

test('what is overtaken while it loads is not heard', async () => {
  const { speaker } = newSpeaker();
  await speaker.play(
    cue('late'),
    sound('late'),
    () => 0,
    () => false,
  );
  expect(play).not.toHaveBeenCalled();
  expect(urls.size).toBe(0);
});

test('what is not here, and what can not be decoded, is told, and what was heard goes on', async () => {
  const { speaker } = newSpeaker((sha256) => Promise.resolve(sha256 === 'gone' ? null : new Blob(['x'])));
  await speaker.play(cue('waves', 1), sound('waves'), () => 0, yes);
  await expect(speaker.play(cue('gulls', 1), sound('gone'), () => 0, yes)).rejects.toThrow(
    '“gulls” isn’t downloaded yet.',
  );
  load = (element) => element.dispatchEvent(new Event('error'));
  await expect(speaker.play(cue('gulls', 1), sound('gulls'), () => 0, yes)).rejects.toThrow(
    '“gulls” can’t be played here: no reason given',
  );
  expect(speaker.playing()?.media).toBe('waves');
  expect(urls.size).toBe(1);
});

test('a browser that lets no page sound is told of once; anything else is a failure', async () => {
  const { speaker, told } = newSpeaker();
  play.mockRejectedValue(Object.assign(new Error('gesture'), { name: 'NotAllowedError' }));
  await speaker.play(cue('waves', 1), sound('waves'), () => 0, yes);
  await speaker.play(cue('waves', 1), sound('waves'), () => 0, yes);
  expect(told).toEqual([NO_SOUND]);
  play.mockRejectedValue(new Error('no device'));
  await expect(speaker.play(cue('waves', 1), sound('waves'), () => 0, yes)).rejects.toThrow('no device');
  expect(urls.size).toBe(0);
});

describe('what is short is decoded whole', () => {
  /** A clock of a sound card, and what was begun on it: when, from where, how fast, how loud, until when. */
  let context: { currentTime: number; state: string; resume: jest.Mock<Promise<void>, []> };
  let begun: { at: number; from: number; rate: number; volume: number; until: number | null }[];
  const decoded = jest.fn();
  const settle = () => new Promise((settled) => setTimeout(settled));

  beforeEach(() => {
    lengthS = 4;
    begun = [];
    decoded.mockClear();
    context = Object.assign(
      {
        ...{ currentTime: 100, state: 'running', destination: {}, resume: jest.fn(() => Promise.resolve()) },
        decodeAudioData: () => (decoded(), Promise.resolve({ duration: lengthS })),
        createGain: () => ({ gain: { value: 1 }, connect: () => undefined, disconnect: () => undefined }),
        createBufferSource: () => {
          const node = { playbackRate: { value: 1 }, gain: { gain: { value: 0 } }, onended: null };
          let mine: (typeof begun)[number];
          return Object.assign(node, {
            connect: (gain: typeof node.gain) => (node.gain = gain),
            start(at: number, from: number) {
              mine = { at, from, rate: node.playbackRate.value, volume: node.gain.gain.value, until: null };
              begun.push(mine);
            },
            stop: () => (mine.until = context.currentTime),
          });
        },
      },
      {},
    );
    Object.assign(globalThis, { AudioContext: jest.fn(() => context) });
    Blob.prototype.arrayBuffer = () => Promise.resolve(new ArrayBuffer(1));
  });

  test('it follows the one before to the sample, though the timer of its turn comes late', async () => {
    const { speaker } = newSpeaker();
    await speaker.play(cue('waves', 0.4), sound('waves'), () => 1_000, yes);
    expect(begun).toEqual([{ at: 100, from: 1, rate: 1, volume: 0.4, until: null }]);
    speaker.prepare(cue('gulls', 0.4, 3_000), sound('gulls'), () => 3_004);
    await settle();
    // Waves end 3 s from now; by the clock it is 4 ms more, which nobody hears.
    expect(begun[1]).toEqual({ at: 103, from: 0, rate: 1, volume: 0.4, until: null });
    context.currentTime = 103.02;
    await speaker.play(cue('gulls', 0.4, 3_000), sound('gulls'), () => 16, yes);
    expect(begun).toHaveLength(2);
    expect(begun.map(({ until }) => until)).toEqual([null, null]);
    expect(speaker.playing()).toEqual({ media: 'gulls', atMs: expect.closeTo(20, 3) as number });
    expect(urls.size).toBe(0);
  });

  test('what drifts from the clock is put right without a gap, unheard', async () => {
    const { speaker } = newSpeaker();
    await speaker.play(cue('waves'), sound('waves'), () => 0, yes);
    speaker.prepare(cue('gulls', 1, 4_000), sound('gulls'), () => 3_980);
    await settle();
    expect(begun[1]).toMatchObject({ at: 104, rate: 1.001 });
    speaker.silence();
    await speaker.play(cue('waves', 1, 9_000), sound('waves'), () => 0, yes);
    speaker.prepare(cue('gulls', 1, 13_000), sound('gulls'), () => 4_020);
    await settle();
    expect(begun[3]).toMatchObject({ at: 104, rate: 0.999 });
  });

  test('one that is cut off, or far from the clock, is followed at its turn and not before', async () => {
    const { speaker } = newSpeaker();
    await speaker.play(cue('waves'), sound('waves'), () => 0, yes);
    speaker.prepare(cue('gulls', 1, 2_000), sound('gulls'), () => 2_000);
    await settle();
    expect(begun).toHaveLength(1);
    context.currentTime = 102;
    await speaker.play(cue('gulls', 1, 2_000), sound('gulls'), () => 0, yes);
    expect(begun).toEqual([expect.objectContaining({ until: 102 }), expect.objectContaining({ at: 102, until: null })]);
  });

  test('silence, another turn, and a clock that was set take back what was to follow', async () => {
    const { speaker } = newSpeaker();
    await speaker.play(cue('waves'), sound('waves'), () => 0, yes);
    speaker.prepare(cue('gulls', 1, 4_000), sound('gulls'), () => 4_000);
    await settle();
    speaker.prepare(cue('bell', 1, 4_000), sound('bell'), () => 4_000);
    await settle();
    expect(begun.map(({ until }) => until)).toEqual([null, 100, null]);
    await speaker.play(cue('waves'), sound('waves'), () => 2_000, yes);
    expect(begun.map(({ until }) => until)).toEqual([100, 100, 100, null]);
    speaker.silence();
    expect(begun.at(-1)?.until).toBe(100);
  });

  test('a sound that follows itself is decoded once', async () => {
    const { speaker } = newSpeaker();
    await speaker.play(cue('waves'), sound('waves'), () => 0, yes);
    speaker.prepare(cue('waves', 1, 4_000), sound('waves'), () => 4_000);
    await settle();
    expect(begun[1]).toMatchObject({ at: 104 });
    expect(decoded).toHaveBeenCalledTimes(1);
  });

  test('a page that may not sound says so once, and sounds in its next turn once it may', async () => {
    jest.useFakeTimers({ doNotFake: ['queueMicrotask'] });
    const { speaker, told } = newSpeaker();
    context.state = 'suspended';
    context.resume.mockImplementation(() => new Promise(() => undefined));
    const asked = speaker.play(cue('waves'), sound('waves'), () => 0, yes);
    await jest.advanceTimersByTimeAsync(1_000);
    await asked;
    expect(told).toEqual([NO_SOUND]);
    expect(begun).toEqual([]);
    jest.useRealTimers();
    context.resume.mockImplementation(() => Promise.resolve(void (context.state = 'running')));
    await speaker.play(cue('waves'), sound('waves'), () => 0, yes);
    expect(begun).toHaveLength(1);
  });
});
