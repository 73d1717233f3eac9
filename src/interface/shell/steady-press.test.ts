/** @jest-environment @stryker-mutator/jest-runner/jest-env/jsdom */
import { keepPressesSteady } from './steady-press';

let pressed: string[] = [];
let stop = () => {};
beforeEach(() => {
  document.body.innerHTML = `<p id="sentence"></p><button id="five" type="button"><span id="inside">5</span></button>
    <label id="label"><input id="box" type="checkbox"></label><div id="bar">Sailings</div>`;
  pressed = [];
  for (const id of ['five', 'box', 'bar'])
    document.getElementById(id)?.addEventListener('click', () => pressed.push(id));
  stop = keepPressesSteady(document);
});
afterEach(() => stop());

const at = (id: string) => document.getElementById(id) as HTMLElement;
const stand = (id: string, top: number) => {
  at(id).getBoundingClientRect = () => ({ top, left: 10 }) as DOMRect;
};
/** jsdom has no pointer events. */
const pointer = (type: string, target: Element, init: { y?: number; button?: number; type?: string } = {}) => {
  const event = new MouseEvent(type, { bubbles: true, clientX: 20, clientY: init.y ?? 100, button: init.button ?? 0 });
  target.dispatchEvent(Object.assign(event, { pointerId: 1, pointerType: init.type ?? 'mouse' }));
};
const settled = () => new Promise((done) => setTimeout(done));

test('what moves away under a press is pressed all the same, once', async () => {
  stand('five', 90);
  pointer('pointerdown', at('inside'));
  stand('five', 66);
  // The browser finds the sentence there by now: its click is on what holds both.
  pointer('pointerup', at('sentence'));
  pointer('click', document.body);
  await settled();
  expect(pressed).toEqual(['five']);
});

test('where the browser clicks itself, nothing is added', async () => {
  stand('five', 90);
  pointer('pointerdown', at('five'));
  stand('five', 92);
  pointer('pointerup', at('five'));
  at('five').click();
  await settled();
  expect(pressed).toEqual(['five']);
});

test.each<[string, string, number, number, number, string?]>([
  ['what stayed where it was: the pointer was let go elsewhere', 'five', 90, 100, 0],
  ['a drag', 'five', 66, 160, 0],
  ['the other button', 'five', 66, 100, 2],
  ['what is carried', 'bar', 66, 100, 0],
  ['a finger, whose click is still to come', 'five', 66, 100, 0, 'touch'],
])('nothing is pressed: %s', async (_why, id, top, y, button, type = 'mouse') => {
  stand(id, 90);
  pointer('pointerdown', at(id), { button, type });
  stand(id, top);
  pointer('pointerup', at('sentence'), { y, button, type });
  await settled();
  expect(pressed).toEqual([]);
});

test('what is gone by then is not pressed', async () => {
  stand('five', 90);
  pointer('pointerdown', at('five'));
  stand('five', 66);
  pointer('pointerup', at('sentence'));
  at('five').remove();
  await settled();
  expect(pressed).toEqual([]);
});

test('Shift with a press marks no text, and the focus goes where it would', () => {
  const down = (id: string, shiftKey: boolean) => {
    const event = new MouseEvent('mousedown', { bubbles: true, cancelable: true, shiftKey });
    at(id).dispatchEvent(event);
    return event.defaultPrevented;
  };
  expect([down('box', true), document.activeElement?.id]).toEqual([true, 'box']);
  expect([down('box', false), down('sentence', true)]).toEqual([false, false]);
});
