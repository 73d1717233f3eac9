import fc from 'fast-check';
import { RRule } from 'rrule';
import { formatDate, parseDate, parseRule, ruleDates, type LocalDate } from '.';
import { writeRule } from './rule';
import { orThrow } from '../refusal';
import { runs } from '../tests/runs';

const date = (text: string) => parseDate(text) as LocalDate;

function expand(text: string, start: string, last: string): string[] {
  const rule = orThrow(parseRule(text));
  return ruleDates(rule, date(start), date('1990-01-01'), date(last)).map(formatDate);
}

/** `1997-09: 2 3 4` in short. */
const days = (...months: string[]) =>
  months.flatMap((text) => {
    const [month, list = ''] = text.split(':');
    return list
      .trim()
      .split(/\s+/)
      .map((day) => `${month}-${day.padStart(2, '0')}`);
  });

describe('RFC 5545 section 3.8.5.3, its worked examples at date level (from memory)', () => {
  const september2 = '1997-09-02';
  test.each<[string, string, string, string, string[]]>([
    [
      'daily for 10 occurrences',
      'FREQ=DAILY;COUNT=10',
      september2,
      '1999-01-01',
      days('1997-09: 2 3 4 5 6 7 8 9 10 11'),
    ],
    [
      'every 10 days, 5 occurrences',
      'FREQ=DAILY;INTERVAL=10;COUNT=5',
      september2,
      '1999-01-01',
      days('1997-09: 2 12 22', '1997-10: 2 12'),
    ],
    [
      'weekly for 10 occurrences',
      'FREQ=WEEKLY;COUNT=10',
      september2,
      '1999-01-01',
      days('1997-09: 2 9 16 23 30', '1997-10: 7 14 21 28', '1997-11: 4'),
    ],
    [
      'every other week, Tuesday and Thursday, 8 occurrences',
      'FREQ=WEEKLY;INTERVAL=2;COUNT=8;WKST=SU;BYDAY=TU,TH',
      september2,
      '1999-01-01',
      days('1997-09: 2 4 16 18 30', '1997-10: 2 14 16'),
    ],
    [
      'monthly on the first Friday, 10 occurrences',
      'FREQ=MONTHLY;COUNT=10;BYDAY=1FR',
      '1997-09-05',
      '1999-01-01',
      days(
        '1997-09: 5',
        '1997-10: 3',
        '1997-11: 7',
        '1997-12: 5',
        '1998-01: 2',
        '1998-02: 6',
        '1998-03: 6',
        '1998-04: 3',
        '1998-05: 1',
        '1998-06: 5',
      ),
    ],
    [
      'every other month on the first and last Sunday',
      'FREQ=MONTHLY;INTERVAL=2;COUNT=10;BYDAY=1SU,-1SU',
      '1997-09-07',
      '1999-01-01',
      days('1997-09: 7 28', '1997-11: 2 30', '1998-01: 4 25', '1998-03: 1 29', '1998-05: 3 31'),
    ],
    [
      'monthly on the second-to-last Monday',
      'FREQ=MONTHLY;COUNT=6;BYDAY=-2MO',
      '1997-09-22',
      '1999-01-01',
      days('1997-09: 22', '1997-10: 20', '1997-11: 17', '1997-12: 22', '1998-01: 19', '1998-02: 16'),
    ],
    [
      'monthly on the third-to-last day',
      'FREQ=MONTHLY;BYMONTHDAY=-3',
      '1997-09-28',
      '1998-02-28',
      days('1997-09: 28', '1997-10: 29', '1997-11: 28', '1997-12: 29', '1998-01: 29', '1998-02: 26'),
    ],
    [
      'monthly on the first and last day, 10 occurrences',
      'FREQ=MONTHLY;COUNT=10;BYMONTHDAY=1,-1',
      '1997-09-30',
      '1999-01-01',
      days('1997-09: 30', '1997-10: 1 31', '1997-11: 1 30', '1997-12: 1 31', '1998-01: 1 31', '1998-02: 1'),
    ],
    [
      'every 18 months on the 10th to 15th',
      'FREQ=MONTHLY;INTERVAL=18;COUNT=10;BYMONTHDAY=10,11,12,13,14,15',
      '1997-09-10',
      '2000-01-01',
      days('1997-09: 10 11 12 13 14 15', '1999-03: 10 11 12 13'),
    ],
    [
      'yearly in June and July, 10 occurrences',
      'FREQ=YEARLY;COUNT=10;BYMONTH=6,7',
      '1997-06-10',
      '2002-01-01',
      [
        '1997-06-10',
        '1997-07-10',
        '1998-06-10',
        '1998-07-10',
        '1999-06-10',
        '1999-07-10',
        '2000-06-10',
        '2000-07-10',
        '2001-06-10',
        '2001-07-10',
      ],
    ],
    [
      'every third year on the 1st, 100th and 200th day',
      'FREQ=YEARLY;INTERVAL=3;COUNT=10;BYYEARDAY=1,100,200',
      '1997-01-01',
      '2007-01-01',
      [
        '1997-01-01',
        '1997-04-10',
        '1997-07-19',
        '2000-01-01',
        '2000-04-09',
        '2000-07-18',
        '2003-01-01',
        '2003-04-10',
        '2003-07-19',
        '2006-01-01',
      ],
    ],
    [
      'every 20th Monday of the year',
      'FREQ=YEARLY;BYDAY=20MO',
      '1997-05-19',
      '1999-12-31',
      ['1997-05-19', '1998-05-18', '1999-05-17'],
    ],
    [
      'Monday of week 20',
      'FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO',
      '1997-05-12',
      '1999-12-31',
      ['1997-05-12', '1998-05-11', '1999-05-17'],
    ],
    [
      'every Thursday in March',
      'FREQ=YEARLY;BYMONTH=3;BYDAY=TH',
      '1997-03-13',
      '1998-12-31',
      days('1997-03: 13 20 27', '1998-03: 5 12 19 26'),
    ],
    [
      'every Friday the 13th (DTSTART itself is none)',
      'FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13',
      september2,
      '2000-12-31',
      ['1998-02-13', '1998-03-13', '1998-11-13', '1999-08-13', '2000-10-13'],
    ],
    [
      'the first Saturday after the first Sunday of the month',
      'FREQ=MONTHLY;BYDAY=SA;BYMONTHDAY=7,8,9,10,11,12,13',
      '1997-09-13',
      '1998-06-30',
      [
        '1997-09-13',
        '1997-10-11',
        '1997-11-08',
        '1997-12-13',
        '1998-01-10',
        '1998-02-07',
        '1998-03-07',
        '1998-04-11',
        '1998-05-09',
        '1998-06-13',
      ],
    ],
    [
      'U.S. presidential election day',
      'FREQ=YEARLY;INTERVAL=4;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2,3,4,5,6,7,8',
      '1996-11-05',
      '2004-12-31',
      ['1996-11-05', '2000-11-07', '2004-11-02'],
    ],
    [
      'the third of Tuesday, Wednesday or Thursday',
      'FREQ=MONTHLY;COUNT=3;BYDAY=TU,WE,TH;BYSETPOS=3',
      '1997-09-04',
      '1999-01-01',
      ['1997-09-04', '1997-10-07', '1997-11-06'],
    ],
    [
      'the second-to-last weekday of the month',
      'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-2',
      '1997-09-29',
      '1998-03-31',
      ['1997-09-29', '1997-10-30', '1997-11-27', '1997-12-30', '1998-01-29', '1998-02-26', '1998-03-30'],
    ],
    [
      'WKST makes a difference: Monday',
      'FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=MO',
      '1997-08-05',
      '1998-01-01',
      days('1997-08: 5 10 19 24'),
    ],
    [
      'WKST makes a difference: Sunday',
      'FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=SU',
      '1997-08-05',
      '1998-01-01',
      days('1997-08: 5 17 19 31'),
    ],
    [
      'an invalid date is ignored',
      'FREQ=MONTHLY;BYMONTHDAY=15,30;COUNT=5',
      '2007-01-15',
      '2008-01-01',
      ['2007-01-15', '2007-01-30', '2007-02-15', '2007-03-15', '2007-03-30'],
    ],
  ])('%s', (_name, rule, start, last, expected) => {
    expect(expand(rule, start, last)).toEqual(expected);
  });

  test('a date counts only where the rule generates it, the first one too', () => {
    expect(expand('FREQ=WEEKLY;BYDAY=MO', '2026-12-01', '2026-12-15')).toEqual(['2026-12-07', '2026-12-14']);
  });

  test('UNTIL is the last date, inclusive', () => {
    expect(expand('FREQ=DAILY;UNTIL=20261203', '2026-12-01', '2027-01-01')).toEqual(days('2026-12: 1 2 3'));
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

test.each([
  ['', '“” isn’t a part of a rule.'],
  ['FREQ=HOURLY', 'FREQ must be'],
  ['FREQ=WEEKLY;BYMONTHDAY=3', 'does not go with FREQ=WEEKLY'],
  ['FREQ=WEEKLY;BYDAY=2MO', 'needs FREQ=MONTHLY or YEARLY'],
  ['FREQ=DAILY;COUNT=2;UNTIL=20260101', 'exclude each other'],
  ['FREQ=DAILY;UNTIL=20260101T000000Z', 'must be a date'],
  ['FREQ=DAILY;BYHOUR=3', 'BYHOUR isn’t a rule for dates.'],
  ['FREQ=YEARLY;BYMONTH=13', '1 to 12'],
  ['FREQ=MONTHLY;BYSETPOS=1', 'another BY… part'],
  ['FREQ=DAILY;FREQ=DAILY', 'twice'],
  ['FREQ=MONTHLY;BYWEEKNO=1', 'BYWEEKNO needs FREQ=YEARLY.'],
  ['FREQ=MONTHLY;BYYEARDAY=1', 'BYYEARDAY needs FREQ=YEARLY.'],
  ['FREQ=YEARLY;BYWEEKNO=1;BYDAY=2MO', 'A numbered weekday (2MO) does not go with BYWEEKNO.'],
  ['FREQ=DAILY;INTERVAL=0', 'INTERVAL must be a whole number of at least 1.'],
  ['FREQ=DAILY;COUNT=1.5', 'COUNT must be a whole number of at least 1.'],
  ['FREQ=DAILY;COUNT=1000000', 'COUNT must be a whole number of at least 1.'],
  ['FREQ=DAILY;WKST=XX', 'WKST must be one of MO, TU, WE, TH, FR, SA, SU.'],
  ['FREQ=MONTHLY;BYDAY=0MO', '“0MO” isn’t a weekday.'],
  ['FREQ=YEARLY;BYDAY=54MO', '“54MO” isn’t a weekday.'],
  ['FREQ=YEARLY;BYDAY=MO,XX', '“XX” isn’t a weekday.'],
  ['FREQ=MONTHLY;BYMONTHDAY=-32', 'from 1 to 31, or negative ones to count from the end'],
  ['FREQ=MONTHLY;BYMONTHDAY=0', 'from 1 to 31, or negative'],
  ['FREQ=YEARLY;BYMONTH=-1', 'BYMONTH takes whole numbers from 1 to 12.'],
  ['FREQ=YEARLY;BYMONTH=1,x', 'BYMONTH takes whole numbers from 1 to 12.'],
  ['FREQ=DAILY;COUNT', '“COUNT” isn’t a part of a rule.'],
  ['FREQ=DAILY;COUNT=1=2', '“COUNT=1=2” isn’t a part of a rule.'],
  ['FREQ=DAILY;', '“” isn’t a part of a rule.'],
])('%s is refused with a sentence', (text, sentence) => {
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
