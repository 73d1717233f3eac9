import fc from 'fast-check';
import { RRule } from 'rrule';
import { formatDate, parseDate, parseRule, ruleDates, type LocalDate } from '.';
import { writeRule } from './rule';
import { orThrow } from '../refusal';
import { runs } from '../tests/runs';
import { readRows } from '../tests/rows';

const date = (text: string) => parseDate(text) as LocalDate;

function expand(text: string, start: string, last: string): string[] {
  const rule = orThrow(parseRule(text));
  return ruleDates(rule, date(start), date('1990-01-01'), date(last)).map(formatDate);
}

interface Case {
  readonly what: string;
  readonly rule: string;
  readonly start: string;
  readonly until: string;
  /** Days by their months. */
  readonly dates: Readonly<Record<string, readonly number[]>>;
}

const CASES = readRows<Case>('when/rule-cases.jsonl');

describe('RFC 5545 section 3.8.5.3, its worked examples at date level (from memory)', () => {
  test.each(CASES)('$what', ({ rule, start, until, dates }) => {
    expect(expand(rule, start, until)).toEqual(
      Object.entries(dates).flatMap(([month, days]) => days.map((day) => `${month}-${String(day).padStart(2, '0')}`)),
    );
  });

  test('a date counts only where the rule generates it, the first one too', () => {
    expect(expand('FREQ=WEEKLY;BYDAY=MO', '2026-12-01', '2026-12-15')).toEqual(['2026-12-07', '2026-12-14']);
  });

  test('UNTIL is the last date, inclusive', () => {
    expect(expand('FREQ=DAILY;UNTIL=20261203', '2026-12-01', '2027-01-01')).toEqual([
      '2026-12-01',
      '2026-12-02',
      '2026-12-03',
    ]);
  });
});

/**
 * Random rules against the rrule package. Left out, since it differs from the RFC or has no such thing: BYWEEKNO (it cuts
 * weeks at the turn of the year), and BYSETPOS with rules whose set of a period is cut by DTSTART.
 */
test('random rules give the same dates as the rrule package', () => {
  const days = fc.uniqueArray(fc.constantFrom('MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'), {
    minLength: 1,
    maxLength: 3,
  });
  const numbered = fc.uniqueArray(fc.constantFrom('1MO', '2TU', '-1FR', '3SU', '-2WE'), { minLength: 1, maxLength: 2 });
  const months = fc.uniqueArray(fc.integer({ min: 1, max: 12 }), { minLength: 1, maxLength: 3 });
  const monthDays = fc.uniqueArray(fc.constantFrom(1, 2, 13, 15, 28, 29, 30, 31, -1, -2, -31), {
    minLength: 1,
    maxLength: 3,
  });
  const yearDays = fc.uniqueArray(fc.constantFrom(1, 60, 100, 200, 365, 366, -1, -366), { minLength: 1, maxLength: 3 });
  const part = (name: string, list: fc.Arbitrary<readonly (string | number)[]>) =>
    list.map((values) => `;${name}=${values.join()}`);
  const maybe = (one: fc.Arbitrary<string>) => fc.oneof(fc.constant(''), one);
  const shapes = fc.oneof(
    fc.tuple(fc.constant('DAILY'), maybe(part('BYMONTH', months)), maybe(part('BYDAY', days))),
    fc.tuple(fc.constant('WEEKLY'), maybe(part('BYMONTH', months)), maybe(part('BYDAY', days))),
    fc.tuple(
      fc.constant('MONTHLY'),
      maybe(part('BYMONTHDAY', monthDays)),
      maybe(fc.oneof(part('BYDAY', days), part('BYDAY', numbered))),
    ),
    fc.tuple(
      fc.constant('YEARLY'),
      maybe(part('BYMONTH', months)),
      maybe(
        fc.oneof(
          part('BYDAY', days),
          part('BYDAY', numbered),
          part('BYMONTHDAY', monthDays),
          part('BYYEARDAY', yearDays),
        ),
      ),
    ),
  );
  const bounds = fc.oneof(
    fc.constant(''),
    fc.integer({ min: 1, max: 9 }).map((n) => `;COUNT=${n}`),
    fc.constant(';UNTIL=20280615'),
  );
  fc.assert(
    fc.property(
      shapes,
      fc.integer({ min: 1, max: 4 }),
      bounds,
      fc.integer({ min: 0, max: 800 }),
      ([freq, a, b], interval, bound, offset) => {
        const text = `FREQ=${freq};INTERVAL=${interval}${a}${b}${bound}`;
        const start = (date('2024-01-01') + offset) as LocalDate;
        const last = date('2029-12-31');
        const ours = ruleDates(orThrow(parseRule(text)), start, start, last).map(formatDate);
        const theirs = new RRule({ ...RRule.parseString(text), dtstart: new Date(start * 86_400_000) })
          .between(new Date(start * 86_400_000), new Date(last * 86_400_000), true)
          .map((at) => at.toISOString().slice(0, 10));
        expect({ text, dates: ours }).toEqual({ text, dates: theirs });
      },
    ),
    runs(400),
  );
});

test('a rule far in the past costs no more than a new one, and agrees with itself', () => {
  const rule = orThrow(parseRule('FREQ=MONTHLY;INTERVAL=5;BYDAY=-1SU'));
  const whole = ruleDates(rule, date('1995-02-10'), date('1995-02-10'), date('2030-12-31'));
  const part = ruleDates(rule, date('1995-02-10'), date('2026-01-01'), date('2030-12-31'));
  expect(part).toEqual(whole.filter((one) => one >= date('2026-01-01')));
});

test.each<[string, string]>(readRows('when/rule-mistakes.jsonl'))('%s is refused with a sentence', (text, sentence) => {
  expect(parseRule(text)).toMatchObject({ ok: false, message: expect.stringContaining(sentence) });
});

test('what stands at the edge of what is allowed is read', () => {
  for (const text of [
    ...['FREQ=YEARLY;BYMONTH=12;BYDAY=53MO', 'FREQ=MONTHLY;BYMONTHDAY=-31,31', 'FREQ=YEARLY;BYWEEKNO=-53;BYDAY=MO'],
    ...['FREQ=YEARLY;BYYEARDAY=366,-366', 'freq = daily; count = 999999', 'FREQ=WEEKLY;BYDAY=MO;BYSETPOS=-1;WKST=SU'],
  ])
    expect([text, parseRule(text).ok]).toEqual([text, true]);
});

test('a rule that is written is read back the same, with all its parts', () => {
  for (const text of [
    'FREQ=YEARLY;INTERVAL=2;COUNT=3;BYMONTH=1,2;BYYEARDAY=-1;BYSETPOS=1;WKST=SU',
    'FREQ=MONTHLY;UNTIL=20261231;BYMONTHDAY=1,-1;BYDAY=2MO,-1TU,WE',
    'FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO',
  ])
    expect(writeRule(orThrow(parseRule(text)))).toBe(text);
});
