import fc from 'fast-check';
import { readDuration } from './duration';
import { readRows } from '../tests/rows';

const read = (text: string) => {
  const result = readDuration(text);
  return result.ok ? result.value : result.message;
};

test.each<[string, number]>(readRows('plan/durations.jsonl'))('%j is %i ms', (text, ms) => expect(read(text)).toBe(ms));

test.each([
  '',
  'soon',
  '1:75',
  '1:2',
  '1:60:00',
  '-3',
  '1e3',
  '5 days',
  '30s 1m',
  '1m 2m',
  '12 34',
  '1..5',
  'Infinity',
  's',
])('%j is told to be none', (text) =>
  expect(read(text)).toMatch(/isn’t a duration\. Write seconds as 12 or 2\.5, or write 1:30, or 2 min\.$/),
);

test.each(['0', '0.05', '99 ms', '24h 1s', '90000'])('%j is too short or too long', (text) =>
  expect(read(text)).toBe('Write a time from 0.1 seconds to 24 hours.'),
);

test('what a clock shows comes back as it was', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 86_399 }), (seconds) => {
      const two = (n: number) => String(n).padStart(2, '0');
      const [h, m, s] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60];
      expect(read(h > 0 ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`)).toBe(seconds * 1000);
      expect(read(`${h}h ${m}m ${s}s`)).toBe(seconds * 1000);
    }),
  );
});
