import { completionsOf, parseDate, readWhen, type LocalDate } from '..';

const context = {
  today: parseDate('2026-11-26') as LocalDate,
  time: 0,
  calendars: [{ id: 'storm', name: 'Storm timetable' }],
};

test('what is begun is made whole, by what can be read', () => {
  expect(completionsOf('week', context)).toEqual(['weekdays 09:00–17:00', 'weekdays', 'weekends']);
  expect(completionsOf('weekdays 8-9, not', context)).toEqual([
    'weekdays 8-9, not on Sundays',
    'weekdays 8-9, not on Storm timetable',
  ]);
  expect(completionsOf('', context)).toEqual([]);
  expect(completionsOf('weekdays', context)).toEqual(['weekdays 09:00–17:00']);
  for (const begun of ['t', 'e', 'un', 'f', 'a', 'o', 'd'])
    for (const whole of completionsOf(begun, context)) expect(readWhen(whole, context).ok).toBe(true);
});
