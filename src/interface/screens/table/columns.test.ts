import { csvOf } from '@/interface/kit/page/csv';
import { smallPlan } from '@/core/tests/small-plan';
import { factsOf } from '../facts';
import { csvRows, sorted, type Row } from './columns';

const NOW = Date.UTC(2026, 11, 1, 12);
const plan = smallPlan({ screens: ['gate 10', 'gate 9', 'hall'].map((name, i) => ({ id: `s${i}`, name })) });

const row = (i: number, temperature: number | null, state: 'lit' | 'dark' = 'lit'): Row => ({
  ...{ screen: plan.screens[i] as Row['screen'], site: 'Quay', siteTags: [], profile: '', zone: 'UTC' },
  facts: factsOf(
    { id: `s${i}`, state, lastSeen: null, wasLast: null, troubles: [], download: null, can: null },
    undefined,
  ),
  overview: {
    ...{ id: `s${i}`, since: null, wasDarkYesterday: false, software: '=HYPERLINK("//x")' },
    ...{ clockMs: -90_000, usedBytes: null, limitBytes: null, temperature },
  },
});
const rows = [row(0, 41), row(1, null), row(2, -4, 'dark')];
const names = (list: readonly Row[]) => list.map(({ screen }) => screen.name);

test('names are sorted as people count; what is not known comes last either way; states by how bad they are', () => {
  expect(names(sorted(rows, { by: 'screen', down: false }))).toEqual(['gate 9', 'gate 10', 'hall']);
  expect(names(sorted(rows, { by: 'temperature', down: false }))).toEqual(['hall', 'gate 10', 'gate 9']);
  expect(names(sorted(rows, { by: 'temperature', down: true }))).toEqual(['gate 10', 'hall', 'gate 9']);
  expect(names(sorted(rows, { by: 'state', down: false }))).toEqual(['hall', 'gate 10', 'gate 9']);
});

test('a file has what is shown; what a spreadsheet would run is text there, numbers are left alone', () => {
  expect(csvOf(csvRows([row(2, -4)], ['screen', 'software', 'temperature'], NOW))).toBe(
    `Id,Screen,Software,Temperature\ns2,hall,"'=HYPERLINK(""//x"")",'-4 °C\n`,
  );
  expect(csvOf([['-4', '-4.5', '-a']])).toBe(`-4,-4.5,'-a\n`);
});
