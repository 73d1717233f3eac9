import { hoursText, hoursTextSchema } from './hours-text';

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
