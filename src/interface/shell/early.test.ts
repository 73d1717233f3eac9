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
    <input id="name">`;
  document.querySelector('form')?.addEventListener('submit', (event) => event.preventDefault());
  eval(KEEP_EARLY);
};

test('what is pressed before anybody listens is done when all do, in turn and with its keys; once', () => {
  page();
  press('inside', { ctrlKey: true });
  press('gone');
  press('send');
  press('way');
  key(document.getElementById('name') as Element, 'q');
  key(document.body, 'g');
  key(document.body, 'n');
  expect(key(document.body, 'K', { ctrlKey: true }).defaultPrevented).toBe(true);
  key(document.body, 'h');
  document.getElementById('gone')?.remove();
  hear();
  expect(heard).toEqual([]);
  actEarly();
  expect(heard).toEqual(['click tile ctrl', 'keydown page g', 'keydown page n', 'keydown page ctrl K']);
  actEarly();
  expect(heard).toHaveLength(4);
  // From now on what is pressed is heard by those who listen, and by nobody else.
  press('tile');
  expect(heard.slice(4)).toEqual(['click tile']);
  actEarly();
  expect(heard).toHaveLength(5);
});

test('a part of the page that listens before the whole does hears what is pressed once', () => {
  page();
  hear();
  press('inside');
  key(document.body, 'g');
  expect(heard).toEqual([]);
  actEarly();
  expect(heard).toEqual(['click tile', 'keydown page g']);
});
