import { orThrow } from '../../refusal';
import { SAID_CONTEXT as context } from '../../tests/phrases';
import { describeWhen, readWhen } from '..';

test('holidays are those of the only calendar that is called so', () => {
  const calendars = [
    { id: 'school', name: 'School holidays' },
    { id: 'norway', name: 'Public holidays, Norway' },
    { id: 'finland', name: 'Public holidays, Finland' },
  ];
  const of = (...known: number[]) => ({
    ...context,
    calendars: known.map((i) => calendars[i] ?? { id: '', name: '' }),
  });
  expect(readWhen('on holidays', of(0))).toMatchObject({ value: { only: ['school'] } });
  expect(readWhen('school holidays', of(0, 1))).toMatchObject({ value: { only: ['school'] } });
  expect(readWhen('term time', of(0, 1))).toMatchObject({ value: { not: ['school'] } });
  expect(readWhen('term time', of(1))).toMatchObject({
    message: expect.stringContaining('There isn’t a calendar of school holidays or of terms yet.'),
  });
  expect(readWhen('on bank holidays', of(0, 1))).toMatchObject({ value: { only: ['norway'] } });
  expect(readWhen('on bank holidays', of(0))).toMatchObject({
    message: expect.stringContaining('There isn’t a calendar of bank holidays yet.'),
  });
  expect(readWhen('on bank holidays', of(1, 2))).toMatchObject({
    message: 'Which calendar is meant? Name one of Public holidays, Norway; Public holidays, Finland.',
  });
});

test('no code stands in what is said of hours and rules', () => {
  for (const text of [
    'an hour before closing until 30 min after closing',
    'last working day of the month',
    'every 17 May',
    'every 4th Thursday in November',
    'Tuesdays in December',
    'every year from 1 to 24 December',
    'every Tuesday, 5 times',
    'Mondays in even weeks',
  ]) {
    const said = describeWhen(orThrow(readWhen(text, context)));
    expect(said).not.toMatch(/closes|opens|FREQ/);
    expect(orThrow(readWhen(said, context))).toEqual(orThrow(readWhen(text, context)));
  }
});
