import { fitted, nameWidth } from './label';

test('a name is cut to its room by letters, and marked as cut', () => {
  expect(fitted('Evening sailings', 200)).toBe('Evening sailings');
  expect(fitted('Evening sailings', 60)).toBe('Evening…');
  expect(fitted('Evening sailings', 10)).toBe('');
  expect(fitted('夜間の出航', 40)).toBe('夜間…');
  expect(nameWidth(fitted('Evening sailings', 60))).toBeLessThanOrEqual(60);
});
