import type { Intervals } from '../when';
import { newFindings, type Finding } from '.';

const finding = (more: Partial<Finding> = {}): Finding => ({
  ...{ kind: 'clash', severity: 'warning', about: ['a', 'b'], screens: ['hall', 'deck'] },
  ...{ times: [[10, 20]] as Intervals, span: [10, 20], sentence: 'A and B clash.', advice: '', fixes: [] },
  ...more,
});

test('what was found before, and is no worse, is not new', () => {
  const before = [finding({ times: [[0, 15]] }), finding({ times: [[15, 30]], sentence: 'Otherwise said.' })];
  expect(newFindings(before, [finding()])).toEqual([]);
  expect(newFindings(before, [finding({ about: ['b', 'a'], screens: ['deck'] })])).toEqual([]);
  // What is about no time.
  expect(newFindings([finding({ times: [], span: null })], [finding({ times: [], span: null })])).toEqual([]);
});

test.each<[string, Partial<Finding>]>([
  ['another kind', { kind: 'gap' }],
  ['another thing', { about: ['a', 'c'] }],
  ['one more screen', { screens: ['hall', 'deck', 'pier'] }],
  [
    'another time',
    {
      times: [
        [10, 20],
        [40, 50],
      ],
    },
  ],
])('%s makes it new', (_, more) => {
  const worse = finding(more);
  expect(newFindings([finding()], [worse])).toEqual([worse]);
});

test('where nothing was found before, all of it is new', () => {
  expect(newFindings([], [finding()])).toHaveLength(1);
});
