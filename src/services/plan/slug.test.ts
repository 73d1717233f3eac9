import { slugBase, slugFor } from './slug';

test.each([
  ['Morning sailings', 'morning-sailings'],
  ['  Quay 5 / north  ', 'quay-5-north'],
  ['Łódź', 'lodz'],
  ['Ærø & Ålesund', 'aero-alesund'],
  ['ＦＵＬＬ １', 'full-1'],
  ['Расписание', 'raspisanie'],
  ['!!!', 'item'],
  ['', 'item'],
  ['Ferry (old)', 'ferry-old'],
])('"%s" becomes "%s"', (name, id) => {
  expect(slugBase(name)).toBe(id);
});

test('an id is cut at 60 letters, and does not end in a dash', () => {
  expect(slugBase('a'.repeat(80))).toBe('a'.repeat(60));
  expect(slugBase(`${'a'.repeat(59)} b`)).toBe('a'.repeat(59));
});

test('where an id is taken it has the first number that is free, from 2 on', () => {
  expect(slugFor('Hall', [])).toBe('hall');
  expect(slugFor('Hall', ['deck'])).toBe('hall');
  expect(slugFor('Hall', ['hall'])).toBe('hall-2');
  expect(slugFor('Hall', ['hall', 'hall-2', 'hall-4'])).toBe('hall-3');
  expect(slugFor('Hall', ['hall-2'])).toBe('hall');
});
