/** @jest-environment @stryker-mutator/jest-runner/jest-env/jsdom */
import type { SoundAsset } from '@/core/playing';
import { Speaker } from './speaker';
import { NO_SOUND } from './stage';

const sound = (sha256: string): SoundAsset => ({ kind: 'sound', sha256, bytes: 1, type: 'audio/mp4' });

const urls = new Set<string>();
let play: jest.Mock<Promise<void>, []>;
let load: (element: HTMLMediaElement) => void;
/** Elements in the order in which they were given something. */
let elements: HTMLMediaElement[];

beforeEach(() => {
  urls.clear();
  elements = [];
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
  Object.defineProperty(HTMLMediaElement.prototype, 'duration', { configurable: true, get: () => 20 });
  Object.defineProperty(HTMLMediaElement.prototype, 'src', {
    configurable: true,
    set(this: HTMLMediaElement) {
      elements.push(this);
      queueMicrotask(() => load(this));
    },
  });
});

const yes = () => true;
const newSpeaker = (open: (sha256: string) => Promise<Blob | null> = () => Promise.resolve(new Blob(['x']))) => {
  const told: string[] = [];
  return { speaker: new Speaker(open, (message) => told.push(message)), told };
};

test('a sound is heard at its volume, from where it is by now', async () => {
  const { speaker } = newSpeaker();
  expect(speaker.playing()).toBeNull();
  await speaker.play('waves', sound('waves'), 0.4, () => 7_500, yes);
  expect(elements[0]).toMatchObject({ volume: 0.4, currentTime: 7.5 });
  expect(speaker.playing()).toEqual({ media: 'waves', atMs: 7_500 });
});

test('near its beginning, and past its end, it begins at its beginning', async () => {
  const { speaker } = newSpeaker();
  await speaker.play('waves', sound('waves'), 1, () => 90, yes);
  await speaker.play('gulls', sound('gulls'), 1, () => 20_000, yes);
  expect(elements.map(({ currentTime }) => currentTime)).toEqual([0, 0]);
});

test('what is prepared is loaded once, and what was heard gives its bytes back', async () => {
  const open = jest.fn(() => Promise.resolve(new Blob(['x'])));
  const { speaker } = newSpeaker(open);
  await speaker.play('waves', sound('waves'), 1, () => 0, yes);
  speaker.prepare('gulls', sound('gulls'));
  speaker.prepare('gulls', sound('gulls'));
  await speaker.play('gulls', sound('gulls'), 1, () => 0, yes);
  expect(open).toHaveBeenCalledTimes(2);
  expect([...urls]).toEqual(['blob:2']);
});

test('something else that is prepared, and silence, give back what they held', async () => {
  const { speaker } = newSpeaker();
  speaker.prepare('waves', sound('waves'));
  speaker.prepare('gulls', sound('gulls'));
  await speaker.play('bell', sound('bell'), 1, () => 0, yes);
  speaker.silence();
  await new Promise((settled) => setTimeout(settled));
  expect(speaker.playing()).toBeNull();
  expect(urls.size).toBe(0);
});

test('what is overtaken while it loads is not heard', async () => {
  const { speaker } = newSpeaker();
  await speaker.play(
    'late',
    sound('late'),
    1,
    () => 0,
    () => false,
  );
  expect(play).not.toHaveBeenCalled();
  expect(urls.size).toBe(0);
});

test('what is not here, and what can not be decoded, is told, and what was heard goes on', async () => {
  const { speaker } = newSpeaker((sha256) => Promise.resolve(sha256 === 'gone' ? null : new Blob(['x'])));
  await speaker.play('waves', sound('waves'), 1, () => 0, yes);
  await expect(speaker.play('gulls', sound('gone'), 1, () => 0, yes)).rejects.toThrow('"gulls" is not here yet.');
  load = (element) => element.dispatchEvent(new Event('error'));
  await expect(speaker.play('gulls', sound('gulls'), 1, () => 0, yes)).rejects.toThrow(
    '"gulls" can not be played here: no reason given',
  );
  expect(speaker.playing()?.media).toBe('waves');
  expect(urls.size).toBe(1);
});

test('a browser that lets no page sound is told of once; anything else is a failure', async () => {
  const { speaker, told } = newSpeaker();
  play.mockRejectedValue(Object.assign(new Error('gesture'), { name: 'NotAllowedError' }));
  await speaker.play('waves', sound('waves'), 1, () => 0, yes);
  await speaker.play('waves', sound('waves'), 1, () => 0, yes);
  expect(told).toEqual([NO_SOUND]);
  play.mockRejectedValue(new Error('no device'));
  await expect(speaker.play('waves', sound('waves'), 1, () => 0, yes)).rejects.toThrow('no device');
  expect(urls.size).toBe(0);
});
