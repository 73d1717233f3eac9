/** @jest-environment @stryker-mutator/jest-runner/jest-env/jsdom */
import { KEEP_EARLY, actEarly } from './early';

const heard: string[] = [];
const listener = (event: Event) => {
  const { key, ctrlKey } = event as KeyboardEvent;
  const { id } = event.target as HTMLElement;
  heard.push([event.type, id || 'page', ctrlKey && 'ctrl', key].filter(Boolean).join(' '));
};
const hear = () => {
  for (const type of ['click', 'keydown']) document.addEventListener(type, listener);
};
afterEach(() => {
  heard.length = 0;
  for (const type of ['click', 'keydown']) document.removeEventListener(type, listener);
});
const press = (id: string, init: MouseEventInit = {}) =>
  document.getElementById(id)?.dispatchEvent(new MouseEvent('click', { bubbles: true, ...init }));
const key = (at: Element, pressed: string, init: KeyboardEventInit = {}) => {
  const event = new KeyboardEvent('keydown', { key: pressed, bubbles: true, cancelable: true, ...init });
  at.dispatchEvent(event);
  return event;
};
/** The page as it came from the server, before a script of ours runs. */
const page = () => {
  document.body.innerHTML = `
    <button id="tile" type="button"><span id="inside">Pier end</span></button>
    <button id="gone" type="button">Notice</button>
    <form><button id="send">Send</button></form>
    <a href="/plan"><button id="way" type="button">Plan</button></a>
    <input id="name">
    <label id="label"><input id="box" type="checkbox">Departure</label>
    <input id="one" type="radio" name="pass" checked><input id="two" type="radio" name="pass">
    <select id="order"><option>listed</option><option>shuffled</option></select>
    <div id="moment" role="slider"><span id="mark"></span></div>
    <input id="files" type="file">`;
  document.querySelector('form')?.addEventListener('submit', (event) => event.preventDefault());
  eval(KEEP_EARLY);
};

test('a key on a slider is for the slider', async () => {
  page();
  key(document.getElementById('mark') as Element, 'PageUp');
  hear();
  await actEarly();
  expect(heard).toEqual(['keydown moment PageUp']);
});

test('what is pressed before anybody listens is done when all do, in turn and with its keys; once', async () => {
  page();
  press('inside', { ctrlKey: true });
  press('gone');
  press('send');
  press('way');
  key(document.getElementById('name') as Element, 'q');
  expect(key(document.body, 'g').defaultPrevented).toBe(true);
  key(document.body, 'n');
  expect(key(document.body, 'K', { ctrlKey: true }).defaultPrevented).toBe(true);
  key(document.body, 'h');
  document.getElementById('gone')?.remove();
  hear();
  expect(heard).toEqual([]);
  const acting = actEarly();
  // What one of them does is drawn before the next; what is pressed meanwhile comes after it.
  expect(heard).toEqual(['click tile ctrl']);
  press('inside');
  await acting;
  expect(heard).toEqual(['click tile ctrl', 'keydown page g', 'keydown page n', 'keydown page ctrl K', 'click tile']);
  await actEarly();
  expect(heard).toHaveLength(5);
  // From now on what is pressed is heard by those who listen, and by nobody else.
  press('tile');
  expect(heard.slice(5)).toEqual(['click tile']);
  await actEarly();
  expect(heard).toHaveLength(6);
});

test('what is ticked and chosen shows it, and whoever listens later hears it as it was meant', async () => {
  page();
  const box = <T extends HTMLElement = HTMLInputElement>(id: string) => document.getElementById(id) as T;
  const order = () => box<HTMLSelectElement>('order');
  const change = (id: string) => box(id).dispatchEvent(new Event('change', { bubbles: true }));
  press('label');
  press('two');
  order().value = 'shuffled';
  change('order');
  change('files');
  // What is written is kept by the field.
  change('name');
  expect([box('box').checked, box('two').checked, order().value]).toEqual([true, true, 'shuffled']);
  // As it begins to listen, a page may set what it knows of.
  [box('one').checked, order().value] = [true, 'listed'];
  const told: unknown[] = [];
  const hears = (event: Event) => told.push([event.type, (event.target as HTMLElement).id]);
  const before: unknown[] = [];
  box('box').addEventListener('click', () => before.push(box('box').checked));
  for (const type of ['click', 'change']) document.addEventListener(type, hears);
  await actEarly();
  for (const type of ['click', 'change']) document.removeEventListener(type, hears);
  expect([box('box').checked, box('two').checked, order().value]).toEqual([true, true, 'shuffled']);
  expect(told).toEqual([
    ['click', 'box'],
    ['change', 'box'],
    ['click', 'two'],
    ['change', 'two'],
    ['change', 'order'],
    ['change', 'files'],
  ]);
  // The press itself made it so: it is a change to whoever looks at it.
  expect(before).toEqual([true]);
});

test('a choice outlives code that takes the page over as the first of its events comes', async () => {
  page();
  const order = document.getElementById('order') as HTMLSelectElement;
  // The whole listens already, and this part begins to.
  await actEarly();
  const takeOver = () => (order.value = 'listed');
  document.addEventListener('input', takeOver);
  const chosen: string[] = [];
  document.addEventListener('change', () => chosen.push(order.value));
  // As browsers do: both events, one after the other.
  order.value = 'shuffled';
  for (const type of ['input', 'change']) order.dispatchEvent(new Event(type, { bubbles: true }));
  document.removeEventListener('input', takeOver);
  expect([order.value, chosen]).toEqual(['shuffled', ['shuffled']]);
});

test('a part of the page that listens before the whole does hears what is pressed once', async () => {
  page();
  hear();
  press('inside');
  key(document.body, 'g');
  expect(heard).toEqual([]);
  await actEarly();
  expect(heard).toEqual(['click tile', 'keydown page g']);
});
