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

test.each([
  ['Mo-Fr 05:30-22:00', { MO: [['05:30', '22:00']], FR: [['05:30', '22:00']] }],
  [
    'Sa 08:00-12:00 13:00-18:00',
    {
      SA: [
        ['08:00', '12:00'],
        ['13:00', '18:00'],
      ],
    },
  ],
  ['mo–su 06:00–01:00', { SU: [['06:00', '01:00']] }],
])('%s is read, and written the same way', (text, expected) => {
  const hours = hoursTextSchema.parse(text);
  expect(hours?.weekly).toMatchObject(expected);
  expect(hoursTextSchema.parse(hoursText(hours))).toEqual(hours);
});

test('days of the same hours are written together, closed days not at all', () => {
  expect(
    hoursText({ weekly: { MO: [['06:00', '22:00']], TU: [['06:00', '22:00']], TH: [['06:00', '22:00']], SU: [] } }),
  ).toBe('Mo-Tu 06:00-22:00, Th 06:00-22:00');
  expect(hoursText(undefined)).toBe('');
  expect(hoursTextSchema.parse('  ')).toBeUndefined();
});

test.each(['Mo 25:00-26:00', 'Mo', 'Mo 24 Dec 08:00-10:00', 'Mo from opening to noon'])(
  '%s is refused with that part',
  (text) => {
    const result = hoursTextSchema.safeParse(text);
    expect(result.success).toBe(false);
    expect(result.error?.issues[0]?.message).not.toBe('');
  },
);

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
  for (const wrong of ['Mondays closed', 'Holiday closed', '2026-12-25', '2026-02-30 closed', '2026-12-25 25:00-26:00'])
    expect(exceptionsTextSchema.safeParse(wrong).success).toBe(false);
});

test('a place is latitude and longitude', () => {
  expect(placeTextSchema.parse('62.1, -5.4')).toEqual({ latitude: 62.1, longitude: -5.4 });
  expect(placeText({ latitude: 62.1, longitude: -5.4 })).toBe('62.1, -5.4');
  expect(placeTextSchema.parse('')).toBeUndefined();
  for (const wrong of ['62.1', 'north', '95, 5', '10, 200'])
    expect(placeTextSchema.safeParse(wrong).success).toBe(false);
});

describe('spaces, dashes and capitals as one types them; nothing before, behind or in between is guessed', () => {
  const said = (schema: { safeParse(text: string): { success: boolean; data?: unknown } }, text: string) => {
    const read = schema.safeParse(text);
    return read.success ? (read.data ?? 'nothing') : 'refused';
  };
  const EIGHT = [['08:00', '14:00']];

  test.each<[string, unknown]>([
    ['mo 08:00-14:00', { weekly: { MO: EIGHT } }],
    ['Mo  -  Tu  08:00 – 14:00', { weekly: { MO: EIGHT, TU: EIGHT } }],
    [
      'SA 08:00-14:00 15:00-16:00',
      {
        weekly: {
          SA: [
            ['08:00', '14:00'],
            ['15:00', '16:00'],
          ],
        },
      },
    ],
    ['Mo 08:00-14:00,Tu 08:00-14:00', { weekly: { MO: EIGHT, TU: EIGHT } }],
    ['  ', 'nothing'],
    ['xMo 08:00-14:00', 'refused'],
    ['Mo 08:00-14:00x', 'refused'],
    ['Xx 08:00-14:00', 'refused'],
    ['Mo-Xx 08:00-14:00', 'refused'],
    ['Mo 8:00-14:00', { weekly: { MO: EIGHT } }],
    ['Monday 8-14', { weekly: { MO: EIGHT } }],
    ['mondays 8am to 2pm', { weekly: { MO: EIGHT } }],
    ['Mo 08:00-14:00; 16:00-18:00', { weekly: { MO: [...EIGHT, ['16:00', '18:00']] } }],
    ['weekends 08:00-14:00, Sundays closed', { weekly: { SA: EIGHT } }],
    ['weekends 08:00-14:00, closed on Sundays', { weekly: { SA: EIGHT } }],
    ['Mo', 'refused'],
    ['', 'nothing'],
  ])('hours: "%s"', (text, expected) => {
    expect(said(hoursTextSchema, text)).toEqual(expected);
  });

  test.each<[string, unknown]>([
    ['2026-12-25  CLOSED', { '2026-12-25': [] }],
    ['2026-12-25  08:00 - 14:00', { '2026-12-25': EIGHT }],
    [
      '2026-12-25 08:00–14:00  15:00-16:00 ',
      {
        '2026-12-25': [
          ['08:00', '14:00'],
          ['15:00', '16:00'],
        ],
      },
    ],
    ['2026-12-25 closed, , 2026-12-26 closed', { '2026-12-25': [], '2026-12-26': [] }],
    ['x2026-12-25 closed', 'refused'],
    ['2026-12-25 closedx', 'refused'],
    ['2026-12-25closed', 'refused'],
    ['Christmas Day closed', { '2026-12-25': [] }],
    ['closed on 1 Jan', { '2027-01-01': [] }],
    ['25 Dec to 26 Dec 8-14', { '2026-12-25': EIGHT, '2026-12-26': EIGHT }],
    ['closed', 'refused'],
    ['2026-12-25 08:00-14:00x', 'refused'],
    ['2026-12-32 closed', 'refused'],
    ['', 'nothing'],
  ])('dates: "%s"', (text, expected) => {
    expect(said(exceptionsTextSchema, text)).toEqual(expected);
  });

  test.each<[string, unknown]>([
    ['62.123, 5.456', { latitude: 62.123, longitude: 5.456 }],
    ['-62 , -5', { latitude: -62, longitude: -5 }],
    ['62;15', { latitude: 62, longitude: 15 }],
    ['62.5   115.25 ', { latitude: 62.5, longitude: 115.25 }],
    ['  62.5,5.5', { latitude: 62.5, longitude: 5.5 }],
    ['x62, 5', 'refused'],
    ['62, 5x', 'refused'],
    ['62', 'refused'],
    ['91, 5', 'refused'],
    ['62, 181', 'refused'],
    ['62., 5', 'refused'],
    ['62 x, 5', 'refused'],
    [' ', 'nothing'],
  ])('place: "%s"', (text, expected) => {
    expect(said(placeTextSchema, text)).toEqual(expected);
  });

  test('what is not understood is told with its part', () => {
    const issue = (schema: { safeParse(text: string): { error?: { issues: { message: string }[] } } }, text: string) =>
      schema.safeParse(text).error?.issues[0]?.message;
    expect(issue(hoursTextSchema, 'Mo 08:00-14:00, Tu later')).toBe(
      '“Tu later” isn’t understood. Write it like Mo-Fr 05:30-22:00.',
    );
    expect(issue(exceptionsTextSchema, '2026-12-25 open')).toContain('“2026-12-25 open” isn’t understood.');
    expect(issue(placeTextSchema, 'here')).toContain('Choose a town from the list, or write latitude');
  });
});

describe('lights-out as it is said', () => {
  const read = (text: string) => lightsOutTextSchema(context).safeParse(text).data ?? 'nothing';
  test.each<[string, unknown]>([
    ['23:30 to 04:45', [{ windows: [['23:30', '04:45']] }]],
    ['an hour after closing until half an hour before opening', [{ windows: [['closes+01:00', 'opens-00:30']] }]],
    ['', 'nothing'],
    ['  ', 'nothing'],
    ['always', [{}]],
    ['tonight', [{ from: '2026-11-26', to: '2026-11-26', windows: [['18:00', '24:00']] }]],
    ['from 26 Nov 22:00-06:00', [{ from: '2026-11-26', windows: [['22:00', '06:00']] }]],
    [
      'daily 22:00-06:00; Sat 12:00-13:00',
      [
        { windows: [['22:00', '06:00']] },
        { from: '2026-11-26', repeat: 'FREQ=WEEKLY;BYDAY=SA', windows: [['12:00', '13:00']] },
      ],
    ],
  ])('%s', (text, list) => {
    expect(read(text)).toEqual(list);
    if (Array.isArray(list)) expect(read(lightsOutText(list as never))).toEqual(list);
  });
  test('what is no time is told', () => {
    expect(lightsOutTextSchema(context).safeParse('23:30 to lunch-ish').error?.issues[0]?.message).toMatch(/lunch-ish/);
  });
  test('no code stands in what is shown', () => {
    expect(lightsOutText([{ windows: [['closes+01:00', 'opens-00:30']] }])).toBe(
      'daily 1 h after closing–30 min before opening',
    );
    expect(lightsOutText(undefined)).toBe('');
  });
});
