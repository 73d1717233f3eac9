import {
  exceptionsText,
  exceptionsTextSchema,
  hoursText,
  hoursTextSchema,
  placeText,
  placeTextSchema,
} from './hours-text';

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

test.each(['Monday 6-22', 'Fr-Mo 06:00-22:00', 'Mo 25:00-26:00', 'Mo'])('%s is refused with that part', (text) => {
  const result = hoursTextSchema.safeParse(text);
  expect(result.success).toBe(false);
  expect(result.error?.issues[0]?.message).not.toBe('');
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
  expect(exceptionsText({ dates: dates ?? {} })).toBe('2026-12-25 closed, 2026-12-31 08:00-12:00 13:00-14:00');
  expect(exceptionsTextSchema.parse(' ')).toBeUndefined();
  for (const wrong of ['Christmas closed', '2026-12-25', '2026-02-30 closed', '2026-12-25 25:00-26:00'])
    expect(exceptionsTextSchema.safeParse(wrong).success).toBe(false);
});

test('a place is latitude and longitude', () => {
  expect(placeTextSchema.parse('62.1, -5.4')).toEqual({ latitude: 62.1, longitude: -5.4 });
  expect(placeText({ latitude: 62.1, longitude: -5.4 })).toBe('62.1, -5.4');
  expect(placeTextSchema.parse('')).toBeUndefined();
  for (const wrong of ['62.1', 'north', '95, 5', '10, 200'])
    expect(placeTextSchema.safeParse(wrong).success).toBe(false);
});
