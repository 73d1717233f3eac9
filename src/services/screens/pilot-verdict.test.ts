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

/** Its minutes are over. */
const over = { ...trial, litSince: ago(10) };
/** It has a time for the others, five minutes ahead. */
const timed = { ...trial, at: ago(-5) };
const passed = { ...over, at: ago(-5), passed: true };
const DARK = { lastSeen: new Date(NOW - 46_000) };
const wait = (litSince: string | null) => ({ kind: 'wait', litSince });
const stop = (why: string) => ({ kind: 'stop', why });
const publish = { kind: 'publish' };

test.each([
  ['all are lit, not for long enough', trial, [screen(), screen()], wait(ago(9))],
  ['all are lit for the first time', { ...trial, litSince: null }, [screen()], wait(ago(0))],
  ['the time of trial is over', over, [screen()], publish],
  ['nobody but a person decides', { ...trial, minutes: null, litSince: ago(90) }, [screen()], wait(ago(90))],
  ['one rests by its hours', over, [screen({}, { state: 'resting' })], publish],
  ['one is behind', over, [screen(), behind], wait(null)],
  ['one has no player', over, [screen(), screen({ player: null, lastSeen: null })], publish],
  ['the clock was put back', { ...trial, litSince: ago(-1) }, [screen()], wait(ago(0))],
  ['an error is told since it was begun', trial, [screen(), screen({}, at(29, 'No film'))], stop('Hall: No film')],
  ['an error is of before', trial, [screen({}, at(31, 'Old'))], wait(ago(9))],
  ['one went dark with it', over, [screen(DARK)], stop('Hall went dark with it.')],
  [
    'one was dark before, and may come back',
    trial,
    [screen({ lastSeen: new Date(NOW - 90 * MINUTE), reachedAt: null })],
    wait(null),
  ],
  [
    'one does not take it up',
    { ...trial, given: new Date(NOW - TAKES_UP_WITHIN_MS - 1).toISOString() },
    [screen(), behind],
    stop('Hall didn’t update within 15 minutes.'),
  ],
  [
    'the minutes are over, and its time is to come',
    { ...over, at: ago(-5) },
    [screen()],
    { kind: 'pass', litSince: ago(10) },
  ],
  ['the minutes are over, and its time is there', { ...over, at: ago(0) }, [screen()], publish],
  ['its time is to come, and one is behind', timed, [behind], wait(null)],
  [
    'its time comes before the minutes are over',
    { ...trial, at: ago(0) },
    [screen()],
    stop('Its time came before all had been lit for 10 minutes.'),
  ],
  ['it passed, and one is behind by what went out since', passed, [behind], wait(ago(10))],
  ['it passed, and one goes dark before its time', passed, [screen(DARK)], stop('Hall went dark with it.')],
  ['no screen has a player any more', trial, [screen({ player: null })], stop('None of its screens has a player now.')],
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
