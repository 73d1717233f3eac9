import { bookingSchema, type Booking } from '@/core/plan';
import { parseDate, type LocalDate, type When } from '@/core/when';
import {
  bookingDocument,
  bookingFormSchema,
  bookingValues,
  fieldsInWords,
  whenField,
  whenValues,
  type HoursValues,
} from './booking-values';
import { readRows } from '@/core/tests/rows';

const now = new Date('2026-11-25T10:00:00Z');
const schema = bookingFormSchema({
  today: parseDate('2026-11-25') as LocalDate,
  calendars: [{ id: 'storm-days', name: 'Storm timetable' }],
  zones: ['Europe/Oslo'],
});

/** One set of hours with these fields. */
const hours = (fields: Partial<HoursValues>) => ({ sets: whenValues({}).map((set) => ({ ...set, ...fields })) });

const booking = (values: object): Booking =>
  bookingSchema.parse({
    id: 'b',
    name: 'B',
    content: { playlist: 'house' },
    where: 'quay and not staff',
    created: '2026-01-05T09:00:00Z',
    ...values,
  });

/** What the form makes of its own values. */
function through(before: Booking): Omit<Booking, 'id'> {
  return bookingDocument(schema.parse(bookingValues(before)), before, now);
}

test.each<[string, object]>(readRows('../interface/booking/booking-values.jsonl'))(
  '%s goes through the form unchanged',
  (_what, values) => {
    const before = booking(values);
    const { id: _id, ...document } = before;
    expect(through(before)).toEqual(document);
  },
);

test.each([
  ['a while', 'Write a duration under a day, e.g. 30 min or 2 hours. Leave empty for “until the all-clear”.'],
  ['2 days', 'Write a duration under a day, e.g. 30 min or 2 hours. Leave empty for “until the all-clear”.'],
  ['30 s', 'A takeover lasts a minute at least.'],
  ['24 h', 'A takeover with a duration ends within a day. Leave it out for one that lasts until the all-clear.'],
])('a takeover for "%s" is told why not', (lasts, sentence) => {
  const read = schema.safeParse({ ...bookingValues(booking({ takeover: true, onHold: true })), lasts });
  expect(read.error?.issues.map(({ path, message }) => [path.join(), message])).toEqual([['lasts', sentence]]);
});

test('weekdays without a first day begin today', () => {
  const values = {
    ...bookingValues(null),
    name: 'New',
    content: 'media:flag',
    where: 'all',
    ...hours({ days: [6, 0] }),
  };
  expect(bookingDocument(schema.parse(values), null, now)).toMatchObject({
    content: { media: 'flag' },
    created: now.toISOString(),
    when: { from: '2026-11-25', repeat: 'FREQ=WEEKLY;BYDAY=MO,SU' },
  });
});

test('all seven days are every day; waking is for takeovers alone', () => {
  const values = {
    ...bookingValues(null),
    name: 'New',
    content: 'playlist:house',
    where: 'all',
    ...hours({ days: [0, 1, 2, 3, 4, 5, 6] }),
    wake: true,
  };
  const made = bookingDocument(schema.parse(values), null, now);
  expect(made.when).toEqual({});
  expect(made).not.toHaveProperty('wake');
});

test.each([
  [{ name: ' ' }, 'name', 'Write a name.'],
  [{ content: '' }, 'content', 'Choose what is shown.'],
  [{ where: 'quay and' }, 'where', 'Something is missing at the end.'],
  [hours({ from: '2026-12-05', to: '2026-12-01' }), 'sets.0.to', 'The last day comes before the first.'],
  [hours({ from: '2026-02-30' }), 'sets.0.from', ''],
  [{ seconds: 'long' }, 'seconds', '“long” isn’t a duration.'],
  [hours({ windows: [{ start: '10:00', end: '', days: '' }] }), 'sets.0.windows.0.end', 'Write when it ends, e.g.'],
  [hours({ rule: 'FREQ=SOMETIMES', from: '2026-01-01' }), 'sets.0.rule', 'FREQ must be'],
  [hours({ rule: 'FREQ=DAILY' }), 'sets.0.from', 'Choose the first day of the repeat.'],
  [{ priority: '9' }, 'priority', 'A priority is 1 to 5.'],
  [hours({ also: '2026-12-24, soon' }), 'sets.0.also', '“soon” isn’t a date.'],
  [{ said: 'weekdays, sometimes' }, 'said', '“sometimes” isn’t understood.'],
])('%j is told at its field', (wrong, field, sentence) => {
  const values = { ...bookingValues(null), name: 'New', content: 'media:flag', where: 'all', ...wrong };
  const result = schema.safeParse(values);
  const issue = result.error?.issues.find((one) => one.path.join('.') === field);
  expect(issue?.message).toContain(sentence);
});

test('the fields say themselves in words, and say nothing while one of them is being written', () => {
  const values = whenValues({ from: '2026-12-01', repeat: 'FREQ=WEEKLY;BYDAY=SA,SU', windows: [['07:00', '11:00']] });
  expect(fieldsInWords(values, '2026-11-25')).toBe('weekends 07:00–11:00, from 1 Dec 2026');
  expect(fieldsInWords(hours({ windows: [{ start: '07:0', end: '', days: '' }] }).sets, '2026-11-25')).toBeNull();
});

test('windows stand there as they are said, and what is said is read; all that is wrong is told at once', () => {
  const when = {
    windows: [
      ['opens-00:30', 'closes+01:00'],
      ['06:30', '24:00'],
    ] as [string, string][],
  };
  const values = { ...bookingValues(null, { when }), name: 'New', content: 'media:flag', where: 'all' };
  expect(values.sets[0]?.windows).toEqual([
    { start: '30 min before opening', end: '1 h after closing', days: '' },
    { start: '06:30', end: '24:00', days: '' },
  ]);
  expect(bookingDocument(schema.parse(values), null, new Date(0)).when).toEqual(when);
  const said = { ...values, ...hours({ windows: [{ start: 'noon', end: 'an hour before closing', days: '2' }] }) };
  expect(bookingDocument(schema.parse(said), null, new Date(0)).when).toEqual({
    windows: [['12:00', 'closes-01:00', 2]],
  });
  const wrong = schema.safeParse({
    ...values,
    ...hours({
      windows: [
        { start: 'soon', end: 'later', days: '' },
        { start: '25:00', end: '10:00', days: '' },
      ],
    }),
  });
  expect(wrong.error?.issues.map(({ path }) => path.join('.'))).toEqual([
    'sets.0.windows.0.start',
    'sets.0.windows.0.end',
    'sets.0.windows.1.start',
  ]);
});

test('several sets of hours are groups of fields, and stay what they are; a problem is shown at its own', () => {
  const when = {
    any: [
      {
        from: '2026-12-01',
        repeat: 'FREQ=WEEKLY;BYDAY=FR',
        windows: [['18:00', '06:00', 3] as [string, string, number]],
      },
      { from: '2026-12-24', to: '2026-12-24' },
    ],
  } satisfies When;
  const before = booking({ when });
  expect(bookingDocument(schema.parse(bookingValues(before)), before, now).when).toEqual(when);
  expect(whenField(['when', 'any', '1', 'from'])).toBe('sets.1.from');
  expect(whenField(['when', 'repeat'])).toBe('sets.0.repeat');
  expect(whenField(['when'])).toBe('said');
});
