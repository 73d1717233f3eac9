/** @jest-environment @stryker-mutator/jest-runner/jest-env/jsdom */
import type { KeyboardSensorProps } from '@dnd-kit/core';
import { KeysAtOnceSensor } from './keys-at-once';

jest.useFakeTimers();

const press = (code: string) => new KeyboardEvent('keydown', { code, bubbles: true });
/** What a press that takes an item, and those after it, have done. */
let done: string[];
beforeEach(() => {
  done = [];
  const take = press('Space');
  const taken = () => {
    new KeysAtOnceSensor({
      event: take,
      activeNode: { node: { current: null } },
      context: { current: { scrollableAncestors: [], collisionRect: null } },
      options: { coordinateGetter: () => ({ x: 0, y: -60 }) },
      onStart: () => done.push('taken'),
      onMove: () => done.push('moved'),
      onEnd: () => done.push('put down'),
      onCancel: () => done.push('back'),
    } as unknown as KeyboardSensorProps);
  };
  document.body.addEventListener('keydown', taken, { once: true });
  document.body.dispatchEvent(take);
});

test('an arrow right after the press that takes an item moves it, once; the press itself is not heard again', () => {
  document.body.dispatchEvent(press('ArrowUp'));
  expect(done).toEqual(['taken', 'moved']);
  jest.runAllTimers();
  document.body.dispatchEvent(press('ArrowUp'));
  document.body.dispatchEvent(press('Space'));
  document.body.dispatchEvent(press('ArrowUp'));
  expect(done).toEqual(['taken', 'moved', 'moved', 'put down']);
});

test('what is put down at once hears no later key', () => {
  document.body.dispatchEvent(press('Space'));
  jest.runAllTimers();
  document.body.dispatchEvent(press('ArrowUp'));
  expect(done).toEqual(['taken', 'put down']);
});
