import { merge } from './merge';

const base = { name: 'Morning', where: 'hall', windows: [{ start: '05:30' }] };

test('what only one side changed is taken; neither loses a word', () => {
  expect(merge(base, { ...base, where: 'deck' }, { ...base, name: 'Dawn' })).toEqual({
    values: { ...base, name: 'Dawn', where: 'deck' },
    both: [],
  });
  expect(merge(base, base, { ...base, name: 'Dawn' }).values.name).toBe('Dawn');
});

test('what both changed alike is no conflict; what they changed otherwise stays mine, and is told', () => {
  const theirs = { ...base, name: 'Early', windows: [{ start: '06:00' }] };
  expect(merge(base, theirs, { ...base, windows: [{ start: '06:00' }] })).toEqual({ values: theirs, both: [] });
  expect(merge(base, theirs, { ...base, name: 'Dawn' })).toEqual({
    values: { ...theirs, name: 'Dawn' },
    both: ['name'],
  });
});

describe('what one sent oneself and comes back', () => {
  const base = { hours: '', name: 'Hall' };
  const sent = {
    written: { hours: 'weekdays 6 to 22', name: 'Hall' },
    made: { hours: 'Mo-Fr 06:00-22:00', name: 'Hall' },
  };
  test('is no conflict: it stands there as it is saved', () => {
    expect(merge(base, sent.made, sent.written, sent)).toEqual({ values: sent.made, both: [] });
  });
  test('gives way to what one has written on', () => {
    const mine = { hours: 'weekdays 6 to 23', name: 'Hall' };
    expect(merge(base, sent.made, mine, sent)).toEqual({ values: mine, both: [] });
  });
  test("is told from another's words in the same field", () => {
    const theirs = { hours: 'Sa 08:00-10:00', name: 'Hall' };
    expect(merge(base, theirs, sent.written, sent)).toEqual({ values: sent.written, both: ['hours'] });
  });
});
