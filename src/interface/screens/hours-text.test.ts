import { readRows } from '@/core/tests/rows';
import { dateOf } from '@/core/when';
import {
  exceptionsText,
  exceptionsTextSchema as exceptionsIn,
  hoursText,
  hoursTextSchema as hoursIn,
  lightsOutText,
  lightsOutTextSchema,
  placeText,
  placeTextSchema,
} from './hours-text';

const context = { today: dateOf(2026, 11, 26), time: 0, calendars: [], zones: ['Europe/Oslo'] };
const hoursTextSchema = hoursIn(context);
const exceptionsTextSchema = exceptionsIn(context);

const FIELDS = {
  hours: { schema: hoursTextSchema, text: hoursText },
  dates: { schema: exceptionsTextSchema, text: (dates: object) => exceptionsText({ dates } as never) },
  place: { schema: placeTextSchema, text: placeText },
  'lights-out': { schema: lightsOutTextSchema(context), text: lightsOutText },
};

interface Row {
  readonly field: keyof typeof FIELDS;
  readonly say: string;
  /** What it is read as; `nothing` for a field that is left empty, `refused` for what isn't understood whole. */
  readonly means: 'nothing' | 'refused' | object;
}

/** Spaces, dashes and capitals as people type them; nothing before, behind or in between is guessed. */
test.each(readRows<Row>('../interface/screens/hours-text.jsonl'))('$field: "$say"', ({ field, say, means }) => {
  const { schema, text } = FIELDS[field];
  const read = (said: string) => {
    const result = schema.safeParse(said);
    return result.success ? (result.data ?? 'nothing') : 'refused';
  };
  expect(read(say)).toEqual(means);
  // What the field then says is read as the same.
  if (typeof means === 'object') expect(read(text(means as never))).toEqual(means);
});

test('days of the same hours are written together, closed days not at all', () => {
  expect(
    hoursText({ weekly: { MO: [['06:00', '22:00']], TU: [['06:00', '22:00']], TH: [['06:00', '22:00']], SU: [] } }),
  ).toBe('Mo-Tu 06:00-22:00, Th 06:00-22:00');
  expect(hoursText(undefined)).toBe('');
  expect(hoursTextSchema.parse('  ')).toBeUndefined();
});

test('dates with hours of their own are read, and written in order', () => {
  const dates = exceptionsTextSchema.parse('2026-12-31 08:00-12:00 13:00-14:00, 2026-12-25 Closed');
  expect(dates).toEqual({
    '2026-12-25': [],
    '2026-12-31': [
      ['08:00', '12:00'],
      ['13:00', '14:00'],
    ],
  });
  expect(exceptionsText({ dates: dates ?? {} })).toBe('25 Dec 2026 closed, 31 Dec 2026 08:00-12:00 13:00-14:00');
  expect(exceptionsTextSchema.parse(' ')).toBeUndefined();
});

test('what is not understood is named', () => {
  const issue = (schema: { safeParse(text: string): { error?: { issues: { message: string }[] } } }, text: string) =>
    schema.safeParse(text).error?.issues[0]?.message;
  expect(issue(hoursTextSchema, 'Mo 08:00-14:00, Tu later')).toBe(
    '“Tu later” isn’t understood. Write it like Mo-Fr 05:30-22:00.',
  );
  expect(issue(exceptionsTextSchema, '2026-12-25 open')).toContain('“2026-12-25 open” isn’t understood.');
  expect(issue(placeTextSchema, 'here')).toContain('Choose a town from the list, or write latitude');
});

test('what isn’t a time is named', () => {
  expect(lightsOutTextSchema(context).safeParse('23:30 to lunch-ish').error?.issues[0]?.message).toMatch(/lunch-ish/);
});
test('no code stands in what is shown', () => {
  expect(lightsOutText([{ windows: [['closes+01:00', 'opens-00:30']] }])).toBe(
    'daily 1 h after closing–30 min before opening',
  );
  expect(lightsOutText(undefined)).toBe('');
});
