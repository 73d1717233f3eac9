import { screensFor } from './screens-for';

const waiting = ['a', 'b', 'c'].map((id) => ({ id }));

test('waiting players get the next screens without one, in order; what a person chose goes ahead, and no screen is given twice', () => {
  const given = (chosen: [string, string][], free: string[]) => [...screensFor(waiting, new Map(chosen), free)];
  expect(given([], ['x', 'y'])).toEqual([
    ['a', 'x'],
    ['b', 'y'],
  ]);
  expect(given([['b', 'x']], ['x', 'y', 'z'])).toEqual([
    ['a', 'y'],
    ['b', 'x'],
    ['c', 'z'],
  ]);
  // "Not now", and the same screen for two.
  expect(
    given(
      [
        ['a', ''],
        ['b', 'x'],
        ['c', 'x'],
      ],
      ['x', 'y'],
    ),
  ).toEqual([['b', 'x']]);
});
