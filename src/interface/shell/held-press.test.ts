/** @jest-environment @stryker-mutator/jest-runner/jest-env/jsdom */
import { HOLD_PRESS } from './held-press';
import { KEEP_EARLY, actEarly } from './early';

const heard: string[] = [];
beforeAll(() => {
  eval(HOLD_PRESS);
  document.addEventListener('click', (event) => {
    const { id } = event.target as HTMLElement;
    heard.push(`${event.ctrlKey ? 'ctrl ' : ''}${id}`);
    event.preventDefault();
  });
});
beforeEach(() => {
  heard.length = 0;
  document.body.innerHTML = `
    <section id="street">
      <button id="tile" type="button"><span id="inside">Pier end</span></button>
      <button id="next" type="button">Quay</button>
      <a id="way" href="/plan">Plan</a>
      <p id="words">Sillarvik</p>
    </section>`;
});

const at = (id: string) => document.getElementById(id) as HTMLElement;
/** jsdom has no pointer events of its own: a mouse's, which says that it is the first finger. */
const down = (id: string, init: MouseEventInit = {}) =>
  at(id).dispatchEvent(
    Object.assign(new MouseEvent('pointerdown', { bubbles: true, clientX: 100, clientY: 100, ...init }), {
      isPrimary: true,
    }),
  );
const click = (id: string, init: MouseEventInit = {}) =>
  at(id).dispatchEvent(
    new MouseEvent('click', { bubbles: true, cancelable: true, detail: 1, clientX: 100, clientY: 100, ...init }),
  );

test('where the page moved under a press, it is for what was under the pointer as it began, with its keys, once', () => {
  down('inside');
  click('street', { ctrlKey: true });
  down('way');
  click('street');
  // That press is over: what is pressed next is its own.
  click('street');
  expect(heard).toEqual(['ctrl tile', 'way', 'street']);
});

test.each<[string, () => void, string]>([
  ['pressed and let go on the same', () => (down('inside'), click('inside')), 'inside'],
  ['what is no button', () => (down('words'), click('street')), 'street'],
  ['let go elsewhere on purpose', () => (down('tile'), click('street', { clientX: 107 })), 'street'],
  ['another button of the mouse', () => (down('tile', { button: 2 }), click('street')), 'street'],
  ['a key pressed after it', () => (down('tile'), click('next', { detail: 0 })), 'next'],
  ['a key pressed at what surrounds it', () => (down('tile'), click('street', { detail: 0 })), 'street'],
  ['another press', () => (down('tile'), down('next'), click('next')), 'next'],
  ['what is gone by then', () => (down('tile'), at('tile').remove(), click('street')), 'street'],
])('%s: is as the browser has it', (_name, act, wanted) => {
  act();
  expect(heard).toEqual([wanted]);
});

test('before the script has come it is kept as any press', async () => {
  eval(KEEP_EARLY);
  down('tile');
  click('street');
  expect(heard).toEqual([]);
  await actEarly();
  expect(heard).toEqual(['tile']);
});
