import { plainSelector, pressChip } from './chips';

test('a chip goes round: to have it, not to have it, no matter', () => {
  const steps = ['hall'];
  for (let i = 0; i < 3; i++) steps.push(pressChip(steps.at(-1) ?? '', 'staff'));
  expect(steps).toEqual(['hall', 'hall and staff', 'hall and not staff', 'hall']);
  expect(pressChip('hall', 'hall')).toBe('not hall');
  expect(pressChip('not hall', 'hall')).toBe('all');
  expect(pressChip('', 'hall')).toBe('hall');
});

test('a selector that says more than chips can is kept, and narrowed', () => {
  expect(plainSelector('quay and (hall or gangway)')).toBeNull();
  expect(plainSelector('quay and')).toBeNull();
  expect(pressChip('hall or gangway', 'north')).toBe('(hall or gangway) and north');
});
