import { completionsOf, parseDate, readingsOf, type LocalDate, type PhraseContext } from '..';

const context: PhraseContext = {
  today: parseDate('2026-11-25') as LocalDate,
  time: 12 * 3_600_000,
  calendars: [
    { id: 'storm-days', name: 'Storm timetable' },
    { id: 'fair', name: 'Fair' },
  ],
  zones: ['Europe/Oslo'],
};
test('readings are each told once', () => {
  const found = readingsOf('3/4/2026 to 5/6/2026, 9 to 5 and 8 to 4', context);
  expect(found.length).toBe(3);
  expect(new Set(found.map((one) => JSON.stringify(one))).size).toBe(3);
});

test('calendars are offered by their names', () => {
  expect(completionsOf('only', context)).toEqual(['only on Storm timetable', 'only on Fair']);
});
