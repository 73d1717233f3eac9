import type { Report } from '@/protocol/schemas';
import { TAKES_UP_WITHIN_MS, verdictOf, type PilotScreen } from './pilot-verdict';

const NOW = Date.UTC(2026, 10, 25, 12);
const MINUTE = 60_000;
const ago = (minutes: number) => new Date(NOW - minutes * MINUTE).toISOString();
const target = 'a'.repeat(64);
const screen = (values: Partial<PilotScreen> = {}, report: Partial<Report> = {}): PilotScreen => ({
  ...{ id: 'hall', name: 'Hall', player: 'p', lastSeen: new Date(NOW - 1000), target, reachedAt: new Date(NOW) },
  report: {
    ...{
      state: 'playing',
      edition: 1,
      program: target,
      playing: null,
      download: null,
      clockOffsetMs: 0,
      storage: null,
    },
    ...{ errors: [], software: 'test' },
    ...report,
  },
  ...values,
});
const behind = screen({ reachedAt: null }, { program: null });
const trial = {
  begun: ago(30),
  given: ago(14),
  minutes: 10 as number | null,
  litSince: ago(9) as string | null,
  passed: false,
};
const at = (minutes: number, message: string) => ({ errors: [{ at: NOW - minutes * MINUTE, message }] });

test.each([
  ['all are lit, not for long enough', trial, [screen(), screen()], { kind: 'wait', litSince: ago(9) }],
  ['all are lit for the first time', { ...trial, litSince: null }, [screen()], { kind: 'wait', litSince: ago(0) }],
  ['the time of trial is over', { ...trial, litSince: ago(10) }, [screen()], { kind: 'publish' }],
  [
    'nobody but a person decides',
    { ...trial, minutes: null, litSince: ago(90) },
    [screen()],
    { kind: 'wait', litSince: ago(90) },
  ],
  ['one rests by its hours', { ...trial, litSince: ago(10) }, [screen({}, { state: 'resting' })], { kind: 'publish' }],
  ['one is behind', { ...trial, litSince: ago(10) }, [screen(), behind], { kind: 'wait', litSince: null }],
  [
    'one has no player',
    { ...trial, litSince: ago(10) },
    [screen(), screen({ player: null, lastSeen: null })],
    { kind: 'publish' },
  ],
  [
    'the clock was put back',
    { ...trial, litSince: new Date(NOW + MINUTE).toISOString() },
    [screen()],
    { kind: 'wait', litSince: ago(0) },
  ],
  [
    'an error is told since it was begun',
    trial,
    [screen(), screen({}, at(29, 'A film could not be read'))],
    { kind: 'stop', why: 'Hall: A film could not be read' },
  ],
  ['an error is of before', trial, [screen({}, at(31, 'Old'))], { kind: 'wait', litSince: ago(9) }],
  [
    'one went dark with it',
    { ...trial, litSince: ago(10) },
    [screen({ lastSeen: new Date(NOW - 46_000) })],
    { kind: 'stop', why: 'Hall went dark with it.' },
  ],
  [
    'one was dark before, and may come back',
    trial,
    [screen({ lastSeen: new Date(NOW - 90 * MINUTE), reachedAt: null })],
    { kind: 'wait', litSince: null },
  ],
  [
    'one does not take it up',
    { ...trial, given: new Date(NOW - TAKES_UP_WITHIN_MS - 1).toISOString() },
    [screen(), behind],
    { kind: 'stop', why: 'Hall didn’t update within 15 minutes.' },
  ],
  [
    'the minutes are over, and its time is to come',
    { ...trial, at: ago(-5), litSince: ago(10) },
    [screen()],
    { kind: 'pass', litSince: ago(10) },
  ],
  [
    'the minutes are over, and its time is there',
    { ...trial, at: ago(0), litSince: ago(10) },
    [screen()],
    { kind: 'publish' },
  ],
  ['its time is to come, and one is behind', { ...trial, at: ago(-5) }, [behind], { kind: 'wait', litSince: null }],
  [
    'its time comes before the minutes are over',
    { ...trial, at: ago(0) },
    [screen()],
    { kind: 'stop', why: 'Its time came before all had been lit for 10 minutes.' },
  ],
  [
    'it passed, and one is behind by what went out since',
    { ...trial, at: ago(-5), litSince: ago(10), passed: true },
    [behind],
    { kind: 'wait', litSince: ago(10) },
  ],
  [
    'it passed, and one goes dark before its time',
    { ...trial, at: ago(-5), litSince: ago(10), passed: true },
    [screen({ lastSeen: new Date(NOW - 46_000) })],
    { kind: 'stop', why: 'Hall went dark with it.' },
  ],
  [
    'no screen has a player any more',
    trial,
    [screen({ player: null })],
    { kind: 'stop', why: 'None of its screens has a player now.' },
  ],
])('where %s', (_, tried, screens, verdict) => {
  expect(verdictOf(tried, screens, true, NOW)).toEqual(verdict);
});

test('where the server stood still, nobody is dark or late by that', () => {
  const gone = screen({ lastSeen: new Date(NOW - 10 * MINUTE) });
  const late = { ...trial, given: ago(40) };
  expect(verdictOf(late, [gone, behind], false, NOW)).toEqual({ kind: 'wait', litSince: null });
  expect(verdictOf(late, [gone], true, NOW).kind).toBe('stop');
  // Its time came as the server stood still: they may have been lit all the while, or not.
  expect(verdictOf({ ...late, at: ago(1) }, [gone, behind], false, NOW)).toEqual({ kind: 'wait', litSince: null });
});
