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
