/** @jest-environment @stryker-mutator/jest-runner/jest-env/jsdom */
import type { ShownAsset } from '@/core/playing';
import { NO_SOUND } from '../sound/no-sound';
import { Stage, type Look } from './stage';

/** How turns look and sound: fits, focus, transitions, a film's own sound. */

const asset = (sha256: string, more: Partial<ShownAsset> = {}): ShownAsset => ({
  ...{ kind: 'image', sha256, bytes: 1, width: 1, height: 1, type: 'image/png' },
  ...more,
});
const film = (sha256: string) => asset(sha256, { kind: 'video', type: 'video/mp4' });

interface Moved {
  readonly element: Element;
  readonly frames: Keyframe[];
  readonly ms: unknown;
  currentTime: number;
  finish(): void;
  readonly cancel: jest.Mock;
}
let moved: Moved[];
let frames: (() => void)[];
let play: jest.Mock<Promise<void>, [HTMLMediaElement]>;

beforeEach(() => {
  document.body.innerHTML = '<div id="stage"></div>';
  moved = [];
  frames = [];
  play = jest.fn((_element: HTMLMediaElement) => Promise.resolve());
  URL.createObjectURL = () => 'blob:x';
  URL.revokeObjectURL = () => undefined;
  window.requestAnimationFrame = (work) => frames.push(() => work(0));
  // jsdom neither decodes, plays nor moves.
  HTMLImageElement.prototype.decode = () => Promise.resolve();
  HTMLMediaElement.prototype.play = function () {
    return play(this);
  };
  HTMLMediaElement.prototype.pause = () => undefined;
  HTMLMediaElement.prototype.load = () => undefined;
  Object.defineProperty(HTMLMediaElement.prototype, 'src', {
    configurable: true,
    set(this: HTMLVideoElement) {
      queueMicrotask(() => this.dispatchEvent(new Event('canplay')));
    },
  });
  Element.prototype.animate = function (this: Element, keyframes: Keyframe[], options: unknown) {
    let finish = () => undefined as void;
    const finished = new Promise<void>((done) => (finish = () => done()));
    const ms = typeof options === 'number' ? options : (options as KeyframeAnimationOptions).duration;
    const one = { element: this, frames: keyframes, ms, currentTime: 0, finish: () => finish(), cancel: jest.fn() };
    moved.push(one);
    return Object.assign(one, { finished }) as unknown as Animation;
  } as typeof Element.prototype.animate;
});

const root = () => document.getElementById('stage') as HTMLElement;
const layers = () => [...root().children] as HTMLElement[];
const newStage = (tell?: (message: string) => void) => new Stage(root(), () => Promise.resolve(new Blob(['x'])), tell);
const yes = () => true;
const nextFrame = () => frames.splice(0).forEach((work) => work());
/** Shows one after another, each `turnMs` into its turn. */
async function shown(stage: Stage, of: ShownAsset, look: Look = {}, turnMs = 0): Promise<HTMLElement> {
  await stage.show(
    { name: of.sha256, asset: of },
    () => 0,
    yes,
    look,
    () => turnMs,
  );
  return layers().at(-1) as HTMLElement;
}

test.each([
  [{}, 'contain'],
  [{ fit: 'whole' }, 'contain'],
  [{ fit: 'fill' }, 'cover'],
  [{ fit: 'stretch' }, 'fill'],
  [{ fit: 'exact' }, 'none'],
] as [Look, string][])('%j is fitted as a browser says %s', async (look, fit) => {
  const { style } = await shown(newStage(), asset('one'), look);
  expect(style.objectFit).toBe(fit);
  expect(style.objectPosition).toBe('50% 50%');
});

test('where a picture is cut, its focus stays in sight', async () => {
  const { style } = await shown(newStage(), asset('one', { focus: [0.2, 1] }), { fit: 'fill' });
  expect(style.objectPosition).toBe('20% 100%');
});

test('pixel for pixel counts the pixels of the screen, not those of the browser; other fits do not care', async () => {
  Object.defineProperty(window, 'devicePixelRatio', { configurable: true, value: 2 });
  const stage = newStage();
  const exact = await shown(stage, asset('one'), { fit: 'exact' });
  expect([exact.style.width, exact.style.scale]).toEqual(['200%', '0.5']);
  const filled = await shown(stage, asset('two'), { fit: 'fill' });
  expect([filled.style.width, filled.style.scale]).toEqual(['100%', '1']);
  Object.defineProperty(window, 'devicePixelRatio', { configurable: true, value: 1 });
});

const FADE: Look = { transition: { kind: 'fade', ms: 600 } };

test('a cut, and the first picture of all, come at once', async () => {
  const stage = newStage();
  await shown(stage, asset('one'), FADE);
  await shown(stage, asset('two'), { transition: { kind: 'cut', ms: 600 } });
  await shown(stage, asset('three'));
  expect(moved).toEqual([]);
});

test('a fade lies in the coming turn: what goes stays under it until it is over, then goes', async () => {
  const stage = newStage();
  await shown(stage, asset('one'));
  const two = await shown(stage, asset('two'), FADE, 150);
  expect(moved.map(({ element, frames: of, ms, currentTime }) => [element === two, of, ms, currentTime])).toEqual([
    [true, [{ opacity: 0 }, { opacity: 1 }], 600, 150],
  ]);
  expect(two.style.zIndex).toBe('1');
  nextFrame();
  expect(layers()).toHaveLength(2);
  expect(root().dataset.media).toBe('two');
  moved[0]?.finish();
  await Promise.resolve();
  expect(layers()).toEqual([two]);
  expect(two.style.zIndex).toBe('');
});

test('a slide moves both, a wipe uncovers the one that comes', async () => {
  const stage = newStage();
  const one = await shown(stage, asset('one'));
  const two = await shown(stage, asset('two'), { transition: { kind: 'slide', ms: 400 } });
  expect(moved.map(({ element, frames: of }) => [element, of])).toEqual([
    [two, [{ translate: '100% 0' }, { translate: '0 0' }]],
    [one, [{ translate: '0 0' }, { translate: '-100% 0' }]],
  ]);
  const three = await shown(stage, asset('three'), { transition: { kind: 'wipe', ms: 400 } });
  expect(moved[2]).toMatchObject({
    element: three,
    frames: [{ clipPath: 'inset(0 0 0 100%)' }, { clipPath: 'inset(0 0 0 0)' }],
  });
});

test('one who joins when the transition is over sees a cut', async () => {
  const stage = newStage();
  await shown(stage, asset('one'));
  await shown(stage, asset('two'), FADE, 600);
  expect(moved).toEqual([]);
});

test('what comes in the middle of a transition ends it: no more than two are ever seen', async () => {
  const stage = newStage();
  await shown(stage, asset('one'));
  await shown(stage, asset('two'), FADE);
  await shown(stage, asset('three'), FADE);
  expect(moved[0]?.cancel).toHaveBeenCalledTimes(1);
  expect(layers()).toHaveLength(2);
  moved[0]?.finish();
  await Promise.resolve();
  expect(layers()).toHaveLength(2);
  moved[1]?.finish();
  await Promise.resolve();
  expect(layers()).toHaveLength(1);
});

test('cleared in the middle of a transition, nothing is left', async () => {
  const stage = newStage();
  await shown(stage, asset('one'));
  await shown(stage, asset('two'), FADE);
  stage.clear();
  expect(layers()).toEqual([]);
  expect(moved[0]?.cancel).toHaveBeenCalled();
});

test('a film sounds as loud as its turn says, and is silent as soon as the next one comes', async () => {
  const stage = newStage();
  const loud = (await shown(stage, film('one'), { volume: 0.3 })) as HTMLVideoElement;
  expect([loud.muted, loud.volume]).toEqual([false, 0.3]);
  const silent = (await shown(stage, film('two'), FADE)) as HTMLVideoElement;
  expect(silent.muted).toBe(true);
  expect(loud.muted).toBe(true);
});

test('a browser that lets no page sound shows the film silently, and it is told once', async () => {
  const told: string[] = [];
  const stage = newStage((message) => told.push(message));
  play.mockImplementation((element) =>
    element.muted
      ? Promise.resolve()
      : Promise.reject(Object.assign(new Error('gesture'), { name: 'NotAllowedError' })),
  );
  const one = (await shown(stage, film('one'), { volume: 1 })) as HTMLVideoElement;
  expect([root().dataset.media, one.muted]).toEqual(['one', true]);
  await shown(stage, film('two'), { volume: 1 });
  expect(told).toEqual([NO_SOUND]);
});

test('a film that can not be played at all is told as ever, whatever its volume', async () => {
  play.mockRejectedValue(new Error('no decoder'));
  await expect(shown(newStage(), film('one'), { volume: 1 })).rejects.toThrow('no decoder');
  expect(play).toHaveBeenCalledTimes(1);
});
