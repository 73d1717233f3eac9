import { readiness, readyWords } from './readiness';

const NOW = Date.UTC(2026, 11, 1, 14);
const line = (id: string, bytesPerSecond: number | null, freeBytes: number | null = 1e9) => ({
  ...{ id, bytesPerSecond, freeBytes, kinds: null, codecs: null },
});
const of = (each: [bytes: number, ...screens: string[]][], lines: ReturnType<typeof line>[], dark: string[] = []) => {
  const ids = each.flatMap(([, ...screens]) => screens);
  return readiness(
    { each: each.map(([bytes, ...screens]) => ({ bytes, screens })) },
    new Map(lines.map((one) => [one.id, one])),
    new Set(ids.filter((id) => !dark.includes(id))),
    NOW,
  );
};
const clock = (at: number) => new Date(at).toISOString().slice(11, 16);
const words = (...given: Parameters<typeof of>) => readyWords(of(...given), NOW, (id) => id.toUpperCase(), clock);

test('most are told together, the slow ones by name, speed and time', () => {
  const fast = ['a', 'b', 'c', 'd'].map((id) => line(id, 5e6));
  expect(words([[600e6, 'a', 'b', 'c', 'd', 'ostrey']], [...fast, line('ostrey', 250_000)])).toBe(
    'At the speed of their lines 4 of 5 players ready by 14:02; OSTREY at 2 Mbit/s by 14:40.',
  );
});

test('all together, one alone, and within seconds', () => {
  const two = [line('a', 1e6), line('b', 2e6)];
  expect(words([[40e6, 'a', 'b']], two)).toBe(
    'At the speed of their lines all 2 players that fetch are ready within 40 s.',
  );
  expect(words([[1e9, 'a']], two)).toBe('At the speed of their lines the one player that fetches is ready by 14:17.');
});

test('of two the slow one is named too', () => {
  expect(words([[75_000, 'a', 'b']], [line('a', 1e6), line('b', 200)])).toBe(
    'At the speed of their lines 1 of 2 players ready within 1 s; B at 1.6 kbit/s by 14:07.',
  );
});

test('of many slow ones three are named, the slowest first', () => {
  const fast = Array.from({ length: 9 }, (_, i) => `f${i}`);
  const slow = ['p', 'q', 'r', 's', 't'];
  const lines = [...fast.map((id) => line(id, 1e6)), ...slow.map((id, i) => line(id, 100_000 / (i + 1)))];
  expect(words([[60e6, ...fast, ...slow]], lines)).toBe(
    'At the speed of their lines 9 of 14 players ready within 1 min; T at 160 kbit/s by 14:50; ' +
      'S at 200 kbit/s by 14:40; R at 270 kbit/s by 14:30; 2 more after 14:01.',
  );
});

test('what is told is in whole minutes, later rather than earlier', () => {
  const lines = ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h', 'i'].map((id, i) => line(id, i < 5 ? 1e6 : 1000));
  const told = words([[130_500_000, ...lines.map(({ id }) => id)]], lines);
  expect(told).toContain('5 of 9 players ready by 14:03;');
  expect(told).toContain('1 more after 14:03.');
});

test('a line that was not measured says nothing; who is not heard from is not waited for', () => {
  const found = of(
    [[5e6, 'new', 'none', 'far', 'near']],
    [line('new', null), line('near', 1e6), line('far', 1e6)],
    ['far'],
  );
  expect(found.ready).toEqual([{ screen: 'near', at: NOW + 5000, bytesPerSecond: 1e6 }]);
  expect(found.unknown).toEqual(['new', 'none']);
  expect(words([[5e6, 'new']], [line('new', 0)])).toBe('');
  expect(words([], [])).toBe('');
});

test('storage that is short, by how much; where it is not told, nothing is', () => {
  const lines = [line('a', 1e6, 4e6), line('b', 1e6, 5e6), line('c', null, -1e6), line('d', 1e6, null)];
  expect(of([[5e6, 'a', 'b', 'c', 'd']], lines).short).toEqual([
    { screen: 'a', bytes: 1e6 },
    { screen: 'c', bytes: 6e6 },
  ]);
});
