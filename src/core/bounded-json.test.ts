import fc from 'fast-check';
import { readBoundedJson } from './bounded-json';

const told = (text: string, bounds?: Parameters<typeof readBoundedJson>[1]) => {
  const read = readBoundedJson(text, bounds);
  return read.ok ? 'read' : read.message;
};

test('JSON reads as it does elsewhere', () => {
  fc.assert(
    fc.property(fc.json(), (text) => expect(readBoundedJson(text)).toEqual({ ok: true, value: JSON.parse(text) })),
  );
});

test('brackets, commas and colons inside strings count for nothing, whatever is escaped', () => {
  const bounds = { depth: 1, fields: 1, values: 0 };
  fc.assert(
    fc.property(fc.string(), (text) => expect(told(JSON.stringify({ a: `${text}[[{{:,"\\` }), bounds)).toBe('read')),
  );
});

test.each([
  ['what is nested without end', '['.repeat(10_000_000), /nested more than 40 levels/],
  ['the same of objects', '{"a":'.repeat(100_000), /nested more than 40 levels/],
  ['a million fields', `{${Array.from({ length: 1e6 }, (_, i) => `"k${i}":0`).join()}}`, /more than 2000 fields/],
  ['ten million values', `[${'0,'.repeat(1e7)}0]`, /more than 5000000 values/],
  ['a string without an end', '{"a":"\\', /This isn’t JSON./],
])('%s is refused before it is parsed', (_, text, message) => {
  const parse = jest.spyOn(JSON, 'parse');
  expect(told(text)).toMatch(message);
  expect(parse.mock.calls.length).toBe(/This isn’t JSON./.test(String(message)) ? 1 : 0);
  parse.mockRestore();
});
