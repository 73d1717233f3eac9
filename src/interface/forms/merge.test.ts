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

describe('fields that are one value together', () => {
  const base = { name: 'Morning', said: 'weekdays 06:00–10:00', days: [0, 1], windows: [['06:00', '10:00']] };
  const together = [['said', 'days', 'windows']];
  // One made it Monday to Saturday, the other 06:00 to 22:00: nobody wrote "Mon–Sat 06:00–22:00".
  const theirs = { ...base, said: 'Mon–Sat 06:00–10:00', days: [0, 1, 5] };
  const mine = { ...base, said: 'weekdays 06:00–22:00', windows: [['06:00', '22:00']] };
  test('are mine whole where both changed some of them, and told once', () => {
    expect(merge(base, theirs, mine, null, together)).toEqual({ values: mine, both: ['said'] });
  });
  test('are theirs whole where I changed none of them', () => {
    expect(merge(base, theirs, { ...base, name: 'Dawn' }, null, together)).toEqual({
      values: { ...theirs, name: 'Dawn' },
      both: [],
    });
  });
  test('are no conflict where both made the same of them, or only I changed them', () => {
    expect(merge(base, theirs, theirs, null, together).both).toEqual([]);
    expect(merge(base, { ...base, name: 'Early' }, mine, null, together)).toEqual({
      values: { ...mine, name: 'Early' },
      both: [],
    });
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
