/** @jest-environment @stryker-mutator/jest-runner/jest-env/jsdom */
import type { ShownAsset } from '@/core/playing';
import { Films } from './drawers/film';
import { Stage } from './stage';

const asset = (kind: 'image' | 'video', sha256: string = kind): ShownAsset => ({
  ...{ kind, sha256, bytes: 1, width: 1, height: 1 },
  type: kind === 'image' ? 'image/png' : 'video/mp4',
});

/** Addresses that were made for files, less those that were given back. */
const urls = new Set<string>();
/** What the browser does when it is asked to decode a picture, to load a film, to play it. */
let decode: () => Promise<void>;
let load: (film: HTMLVideoElement) => void;
let play: jest.Mock<Promise<void>, []>;
let frames: (() => void)[];
/** Elements that were told to give back what they hold. */
const emptied: HTMLMediaElement[] = [];

beforeEach(() => {
  urls.clear();
  document.body.innerHTML = '<div id="stage"></div>';
  decode = () => Promise.resolve();
  load = (film) => film.dispatchEvent(new Event('canplay'));
  play = jest.fn(() => Promise.resolve());
  frames = [];
  let count = 0;
  URL.createObjectURL = () => {
    const url = `blob:${++count}`;
    urls.add(url);
    return url;
  };
  URL.revokeObjectURL = (url) => void urls.delete(url);
  window.requestAnimationFrame = (work) => frames.push(() => work(0));
  // jsdom neither decodes nor plays.
  HTMLImageElement.prototype.decode = () => decode();
  HTMLMediaElement.prototype.play = () => play();
  HTMLMediaElement.prototype.pause = () => undefined;
  HTMLMediaElement.prototype.load = jest.fn(function (this: HTMLMediaElement) {
    emptied.push(this);
  });
  emptied.length = 0;
  Object.defineProperty(HTMLMediaElement.prototype, 'duration', { configurable: true, get: () => 20 });
  Object.defineProperty(HTMLMediaElement.prototype, 'src', {
    configurable: true,
    set(this: HTMLVideoElement) {
      queueMicrotask(() => load(this));
    },
  });
});

const root = () => document.getElementById('stage') as HTMLElement;
const seen = () => [...root().children].filter((one): one is HTMLElement => !(one as HTMLElement).hidden);
const nextFrame = () => frames.splice(0).forEach((work) => work());
const newStage = (open: (sha256: string) => Promise<Blob | null> = () => Promise.resolve(new Blob(['x']))) =>
  new Stage(root(), open);
const yes = () => true;

test('one follows the other without a blank: the first goes when the second is drawn, and its bytes are given back', async () => {
  const stage = newStage();
  await stage.show({ name: 'one', asset: asset('image') }, () => 0, yes);
  expect(seen().map((one) => one.tagName)).toEqual(['IMG']);
  expect(root().dataset.media).toBe('one');
  nextFrame();
  await stage.show({ name: 'two', asset: asset('image') }, () => 0, yes);
  expect(seen()).toHaveLength(2);
  expect(root().dataset.media).toBe('two');
  nextFrame();
  expect(seen()).toHaveLength(1);
  expect(root().children).toHaveLength(1);
  expect([...urls]).toEqual(['blob:2']);
});

test('what is prepared is loaded, not seen, and shown without being loaded again', async () => {
  const open = jest.fn(() => Promise.resolve(new Blob(['x'])));
  const stage = newStage(open);
  void stage.prepare({ name: 'one', asset: asset('image') });
  void stage.prepare({ name: 'one', asset: asset('image') });
  await Promise.resolve().then(() => undefined);
  expect(seen()).toEqual([]);
  await stage.show({ name: 'one', asset: asset('image') }, () => 0, yes);
  expect(open).toHaveBeenCalledTimes(1);
  expect(seen()).toHaveLength(1);
});

test('something else that is prepared takes the place of what was, and gives its bytes back', async () => {
  const stage = newStage();
  void stage.prepare({ name: 'one', asset: asset('image') });
  void stage.prepare({ name: 'two', asset: asset('image') });
  await stage.show({ name: 'two', asset: asset('image') }, () => 0, yes);
  nextFrame();
  expect(root().children).toHaveLength(1);
  expect(urls.size).toBe(1);
});

test('a film is muted, begins where it is by now, and is not sought for a quarter of a second', async () => {
  const stage = newStage();
  await stage.show({ name: 'film', asset: asset('video') }, () => 7_500, yes);
  const film = seen()[0] as HTMLVideoElement;
  expect(film.muted).toBe(true);
  expect(film.currentTime).toBe(7.5);
  expect(play).toHaveBeenCalledTimes(1);
  await stage.show({ name: 'next', asset: asset('video', 'next') }, () => 250, yes);
  expect((seen()[1] as HTMLVideoElement).currentTime).toBe(0);
  await stage.show({ name: 'over', asset: asset('video', 'over') }, () => 20_000, yes);
  expect((seen()[2] as HTMLVideoElement).currentTime).toBe(0);
});

test('what is not here, or can not be decoded, is told; what was seen stays, and nothing is left behind', async () => {
  const stage = newStage((sha256) => Promise.resolve(sha256 === 'gone' ? null : new Blob(['x'])));
  await stage.show({ name: 'one', asset: asset('image') }, () => 0, yes);
  nextFrame();
  await expect(stage.show({ name: 'two', asset: asset('image', 'gone') }, () => 0, yes)).rejects.toThrow(
    '“two” isn’t downloaded yet.',
  );
  decode = () => Promise.reject(new Error('The source image cannot be decoded.'));
  await expect(stage.show({ name: 'two', asset: asset('image') }, () => 0, yes)).rejects.toThrow(
    '“two” can’t be played here: The source image cannot be decoded.',
  );
  load = (film) => film.dispatchEvent(new Event('error'));
  await expect(stage.show({ name: 'film', asset: asset('video') }, () => 0, yes)).rejects.toThrow(
    'can’t be played here',
  );
  expect(root().dataset.media).toBe('one');
  expect(root().children).toHaveLength(1);
  expect([...urls]).toEqual(['blob:1']);
});

test('what failed while it was prepared is tried again when it is to be shown', async () => {
  const stage = newStage();
  decode = () => Promise.reject(new Error('busy'));
  void stage.prepare({ name: 'one', asset: asset('image') });
  await expect(stage.show({ name: 'one', asset: asset('image') }, () => 0, yes)).rejects.toThrow('busy');
  decode = () => Promise.resolve();
  await stage.show({ name: 'one', asset: asset('image') }, () => 0, yes);
  expect(seen()).toHaveLength(1);
});

test('what is overtaken while it loads is never seen, and gives its bytes back', async () => {
  const stage = newStage();
  await stage.show({ name: 'one', asset: asset('image') }, () => 0, yes);
  nextFrame();
  await stage.show(
    { name: 'late', asset: asset('image') },
    () => 0,
    () => false,
  );
  expect(root().dataset.media).toBe('one');
  expect(root().children).toHaveLength(1);
  expect([...urls]).toEqual(['blob:1']);
});

test('a film that does not start leaves nothing behind; one that is overtaken as it starts is not seen', async () => {
  const stage = newStage();
  await stage.show({ name: 'one', asset: asset('image') }, () => 0, yes);
  nextFrame();
  play.mockRejectedValueOnce(new Error('no decoder'));
  await expect(stage.show({ name: 'film', asset: asset('video') }, () => 0, yes)).rejects.toThrow('no decoder');
  let wanted = true;
  play.mockImplementationOnce(async () => void (wanted = false));
  await stage.show(
    { name: 'film', asset: asset('video') },
    () => 0,
    () => wanted,
  );
  nextFrame();
  expect(root().dataset.media).toBe('one');
  expect(root().children).toHaveLength(1);
  expect([...urls]).toEqual(['blob:1']);
});

test('films in turn use two elements, and each is emptied when its film is over', async () => {
  const stage = newStage();
  const used = new Set<Element>();
  for (let i = 0; i < 10; i++) {
    void stage.prepare({ name: `film ${i}`, asset: asset('video', `film ${i}`) });
    await stage.show({ name: `film ${i}`, asset: asset('video', `film ${i}`) }, () => 0, yes);
    nextFrame();
    expect(seen()).toHaveLength(1);
    used.add(seen()[0] as Element);
    // The one that was seen last is kept until it is known what comes next.
    expect(emptied).toHaveLength(Math.max(0, i - 1));
  }
  expect(used.size).toBe(2);
  expect(urls.size).toBe(2);
  stage.clear();
  expect(emptied).toHaveLength(10);
  expect(emptied.every((one) => !one.hasAttribute('src') && !one.isConnected)).toBe(true);
});

test('two films in turn are loaded once each, and begin where they are to begin', async () => {
  const open = jest.fn(() => Promise.resolve(new Blob(['x'])));
  const stage = newStage(open);
  const sought: number[] = [];
  const at = new WeakMap<HTMLMediaElement, number>();
  Object.defineProperty(HTMLMediaElement.prototype, 'currentTime', {
    configurable: true,
    get(this: HTMLMediaElement) {
      return at.get(this) ?? 0;
    },
    set(this: HTMLMediaElement, seconds: number) {
      sought.push(seconds);
      at.set(this, seconds);
      queueMicrotask(() => this.dispatchEvent(new Event('seeked')));
    },
  });
  for (let i = 0; i < 6; i++) {
    const name = i % 2 === 0 ? 'one' : 'other';
    void stage.prepare({ name: name, asset: asset('video', name) }, i % 2 === 0 ? 0 : 4_000);
    await stage.show({ name: name, asset: asset('video', name) }, () => (i % 2 === 0 ? 0 : 4_000), yes);
    nextFrame();
    expect(seen()).toHaveLength(1);
    expect(root().dataset.media).toBe(name);
  }
  expect(open).toHaveBeenCalledTimes(2);
  expect(emptied).toHaveLength(0);
  expect(sought).toEqual([4, 0, 4, 0, 4]);
  void stage.prepare({ name: 'still', asset: asset('image') });
  await stage.show({ name: 'still', asset: asset('image') }, () => 0, yes);
  nextFrame();
  expect(emptied).toHaveLength(1);
  expect(urls.size).toBe(2);
  stage.clear();
  expect(urls.size).toBe(0);
});

test('a film that is no longer wanted while it loads is given up at once, and its element serves the next', async () => {
  const stage = newStage();
  load = () => undefined;
  void stage.prepare({ name: 'endless', asset: asset('video', 'endless') });
  await new Promise((done) => setTimeout(done));
  expect(emptied).toHaveLength(0);
  load = (film) => film.dispatchEvent(new Event('canplay'));
  void stage.prepare({ name: 'next', asset: asset('video', 'next') });
  await new Promise((done) => setTimeout(done));
  expect(emptied).toHaveLength(1);
  await stage.show({ name: 'next', asset: asset('video', 'next') }, () => 0, yes);
  expect(stage.seen()).toEqual({ media: 'next', film: { atMs: 0, lengthMs: 20_000 } });
  expect(urls.size).toBe(1);
});

test('of films that are given back, two elements are kept for the next', async () => {
  const films = new Films(() => undefined);
  const six = () => Promise.all(Array.from({ length: 6 }, () => films.draw('blob:film', 0)));
  const first = await six();
  for (const one of first) one.free();
  const used = new Set(first.map(({ element }) => element));
  expect((await six()).filter(({ element }) => used.has(element))).toHaveLength(2);
});

test('what is seen is told: nothing, a still, a film and where it stands', async () => {
  const stage = newStage();
  expect(stage.seen()).toBeNull();
  await stage.show({ name: 'one', asset: asset('image') }, () => 0, yes);
  expect(stage.seen()).toEqual({ media: 'one', film: null });
  await stage.show({ name: 'film', asset: asset('video') }, () => 7_500, yes);
  expect(stage.seen()).toEqual({ media: 'film', film: { atMs: 7_500, lengthMs: 20_000 } });
  stage.clear();
  expect(stage.seen()).toBeNull();
});

test('cleared, nothing is seen, and all bytes are given back, those of what is prepared too', async () => {
  const stage = newStage();
  await stage.show({ name: 'one', asset: asset('image') }, () => 0, yes);
  void stage.prepare({ name: 'two', asset: asset('image') });
  stage.clear();
  await new Promise((done) => setTimeout(done));
  expect(root().children).toHaveLength(0);
  expect(root().dataset.media).toBeUndefined();
  expect(urls.size).toBe(0);
});
