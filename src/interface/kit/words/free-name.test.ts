import { MOST_OF_NAME, nameSchema } from '@/core/plan';
import { freeName } from './free-name';

test('a copy has a name that nobody has, in any case', () => {
  expect(freeName('House', [{ name: 'House' }])).toBe('House, copy');
  expect(freeName('House', [{ name: 'House' }, { name: 'HOUSE, COPY' }])).toBe('House, copy 2');
  expect(freeName('House', [{ name: 'House, copy' }, { name: 'House, copy 2' }])).toBe('House, copy 3');
});

test('a long name is shortened, so that it stays one', () => {
  const long = 'ø'.repeat(MOST_OF_NAME);
  expect(nameSchema.safeParse(freeName(long, [])).success).toBe(true);
  expect(freeName(long, [])).toMatch(/ø, copy$/);
});
