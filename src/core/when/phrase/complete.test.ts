import { completionsOf, endingsOf, parseDate, readWhen, type LocalDate } from '..';

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

test('what only begins is offered ends; each of them can be read, and says one day as it was said', () => {
  const offered = endingsOf('next Monday 7am', context);
  expect(offered).toEqual([
    'next Monday 7am for an hour',
    'next Monday 7am until noon',
    'next Monday 7am until closing',
    'next Monday 7am until 24:00',
  ]);
  expect(offered.map((text) => readWhen(text, context))).toEqual(
    ['08:00', '12:00', 'closes', '24:00'].map((end) => ({
      ok: true,
      value: { from: '2026-11-30', to: '2026-11-30', windows: [['07:00', end]] },
    })),
  );
  for (const text of ['weekdays 7-10', 'weekdays 7-10 and', 'blorp 7am']) expect(endingsOf(text, context)).toEqual([]);
});
