import type { Report } from '@/protocol/schemas';
import { statusOf, type Heard } from './status';

const now = Date.UTC(2026, 10, 25, 12);
const seen = (secondsAgo: number) => new Date(now - secondsAgo * 1000);
const target = 'a'.repeat(64);
const report = (values: Partial<Report> = {}): Report => ({
  ...{ state: 'playing', edition: 1, program: null, playing: null, download: null, clockOffsetMs: 0, storage: null },
  ...{ errors: [], software: 'test' },
  ...values,
});
const heard = (values: Partial<Heard> = {}): Heard => ({
  ...{ id: 'hall', player: 'p', lastSeen: seen(10), report: report({ program: target }) },
  ...values,
});
const status = (values: Partial<Heard> = {}, wanted: string | null = target) => statusOf(heard(values), wanted, now);
const troubles = (values: Partial<Report>) => status({ report: report({ program: target, ...values }) }).troubles;

test.each([
  [
    'lit: heard within 45 s, on the current program',
    { lastSeen: seen(44), report: report({ program: target }) },
    'lit',
  ],
  [
    'resting: the same, in lights-out hours',
    { lastSeen: seen(10), report: report({ program: target, state: 'resting' }) },
    'resting',
  ],
  ['behind: alive, on another program', { lastSeen: seen(10), report: report({ program: 'b'.repeat(64) }) }, 'behind'],
  ['behind: alive, without a program', { lastSeen: seen(10), report: report() }, 'behind'],
  [
    'lit: a file is missing that is not to be seen yet',
    { lastSeen: seen(10), report: report({ program: target, missing: { files: 1, bytes: 5, neededBy: now + 1000 } }) },
    'lit',
  ],
  [
    'behind: the right program, but a file that is to be seen by now is missing',
    { lastSeen: seen(10), report: report({ program: target, missing: { files: 1, bytes: 5, neededBy: now } }) },
    'behind',
  ],
  [
    'lit: a file is missing that is not in sight',
    { lastSeen: seen(10), report: report({ program: target, missing: { files: 1, bytes: 5, neededBy: null } }) },
    'lit',
  ],
  ['dark: nothing heard for 45 s', { lastSeen: seen(46), report: report({ program: target }) }, 'dark'],
  ['dark: never heard', { lastSeen: null, report: null }, 'dark'],
] as const)('%s', (_what, known, state) => {
  expect(status(known).state).toBe(state);
});

test('45 s without a word are not dark yet; the next moment is, and says since when', () => {
  expect(status({ lastSeen: seen(45) })).toEqual({
    ...{ id: 'hall', state: 'lit', lastSeen: null, wasLast: null, troubles: [], download: null, can: [] },
  });
  const late = new Date(now - 45_001);
  expect(status({ lastSeen: late })).toMatchObject({ state: 'dark', lastSeen: late.toISOString() });
  // How it was when it was heard last, whatever the time is now.
  const was = (more: object) => status({ lastSeen: late, ...more }).wasLast;
  expect(was({ report: report({ program: target }) })).toBe('lit');
  expect(was({ report: report({ program: 'b'.repeat(64) }) })).toBe('behind');
  expect(was({ report: report({ program: target, missing: { files: 1, bytes: 5, neededBy: now - 10 } }) })).toBe('lit');
  expect(was({ report: null })).toBeNull();
  expect(status({ lastSeen: null })).toMatchObject({ state: 'dark', lastSeen: null });
});

test('without a player a screen is unpaired, and has no troubles', () => {
  expect(status({ player: null, lastSeen: null, report: null }, null)).toEqual({
    ...{ id: 'hall', state: 'unpaired', lastSeen: null, wasLast: null, troubles: [], download: null, can: null },
  });
});

test('a screen that the newest edition has nothing for is behind, and says what to do', () => {
  expect(status({}, null)).toMatchObject({
    state: 'behind',
    troubles: ['Not in the newest edition yet. Publish your changes.'],
  });
  expect(status({ report: null })).toMatchObject({ state: 'behind', troubles: [], download: null });
});

test('how far a download is, is told while the screen is behind', () => {
  const download = { doneBytes: 1, totalBytes: 4 };
  expect(status({ report: report({ program: 'b'.repeat(64), download }) }).download).toEqual(download);
  expect(status({ report: report({ program: target, download }) }).download).toBeNull();
});

test.each([
  [30_000, []],
  [-30_000, []],
  [30_001, ['Clock 30 s slow; it plays by the server’s.']],
  [-119_400, ['Clock 119 s fast; it plays by the server’s.']],
  [120_000, ['Clock 2 min slow; it plays by the server’s.']],
  [-420_000, ['Clock 7 min fast; it plays by the server’s.']],
])('a clock that is off by %i ms: %j', (clockOffsetMs, expected) => {
  expect(troubles({ clockOffsetMs })).toEqual(expected);
});

test('storage is short by what does not fit any more, in whole megabytes; what just fits is no trouble', () => {
  const download = { doneBytes: 10e6, totalBytes: 30e6 };
  const storage = (usedBytes: number) => troubles({ download, storage: { usedBytes, limitBytes: 100e6 } });
  expect(storage(80e6)).toEqual([]);
  expect(storage(80e6 + 1)).toEqual(['Storage full: 1 MB short.']);
  expect(storage(95e6)).toEqual(['Storage full: 15 MB short.']);
  expect(troubles({ storage: { usedBytes: 100e6, limitBytes: 50e6 } })).toEqual([]);
});

test('missing files are told with their size, and whether they should show by now', () => {
  expect(troubles({ missing: { files: 1, bytes: 5e4, neededBy: now + 1 } })).toEqual([
    '1 file (0.1 MB) still to come, not needed yet.',
  ]);
  expect(troubles({ missing: { files: 2, bytes: 3.2e6, neededBy: now } })).toEqual([
    '2 files (3.2 MB) should show by now and can’t: still to come.',
  ]);
});

test('the last error is told for ten minutes', () => {
  const errors = (ago: number) => [
    { at: now - ago - 1, message: 'first' },
    { at: now - ago, message: 'last' },
  ];
  expect(troubles({ errors: errors(599_999) })).toEqual(['last']);
  expect(troubles({ errors: errors(600_000) })).toEqual([]);
});
