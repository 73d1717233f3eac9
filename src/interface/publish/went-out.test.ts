import type { Edition, Planned } from '@/services/editions';
import { wentOutWords } from './went-out';

const AT = '2026-12-01T13:20:00.000Z';

beforeEach(() => jest.useFakeTimers({ now: Date.parse(AT) }));
afterEach(() => jest.useRealTimers());

const words = (planned: Partial<Planned>, publishedAt = AT) =>
  wentOutWords(
    { at: AT, siteTime: null, pilot: null, steps: [], ...planned } as Planned,
    { number: 7, publishedAt } as Edition,
    'Europe/Oslo',
  );

test('what went out by itself is told by why it did', () => {
  expect(words({})).toBe('Edition 7 is out, as planned for 14:20.');
  // A server that stood still puts it out late.
  expect(words({}, '2026-12-02T08:00:00.000Z')).toBe('Edition 7 is out, as planned for Tue 1 Dec 14:20.');
  expect(words({}, '2026-12-01T13:19:00.000Z')).toBe('Edition 7 is out, ahead of its time.');
  expect(words({ siteTime: '2026-12-01T06:00' })).toBe('Edition 7 is out at the last site, as planned.');
});

test('what was tried is told by on how many', () => {
  const steps = [{ at: AT, screens: ['a', 'b'] }];
  const pilot = { begun: AT } as Planned['pilot'];
  expect(words({ pilot, at: null, steps })).toBe('Edition 7 is out on all screens, after its pilot on 2 screens.');
});
