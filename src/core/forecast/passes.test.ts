import { emptyPlan, type Plan } from '../plan';
import { passesOf } from './passes';

const file = (id: string, tags: string[] = []) => ({
  ...{ id, name: id, kind: 'image' as const, type: 'image/png', width: 10, height: 10, bytes: 1, tags },
  ...{ sha256: '0'.repeat(64), added: '2026-01-01T00:00:00Z' },
});
const screen = (id: string, width: number, height: number, tags: string[] = []) => ({
  ...{ id, name: id, site: 'quay', width, height, tags },
});
const plan: Plan = {
  ...emptyPlan('Line'),
  sites: [{ id: 'quay', name: 'Quay', timeZone: 'UTC' }],
  screens: [screen('tall-1', 1, 2), screen('wide-1', 2, 1), screen('wide-2', 2, 1), screen('crew', 2, 1, ['staff'])],
  media: [file('flag'), file('map'), file('tall'), file('sale-a', ['offer']), file('sale-b', ['offer'])],
  playlists: [
    { id: 'offers', name: 'Offers', items: [{ id: 'o1', collect: 'offer', order: 'name', durationMs: 5000 }] },
    {
      id: 'house',
      name: 'House',
      items: [
        { id: 'a', media: 'flag', durationMs: 8000 },
        { id: 'b', playlist: 'offers', where: 'not staff' },
        { id: 'c', media: 'tall', durationMs: 4000, where: 'is:portrait' },
        { id: 'd', media: 'flag' },
        { id: 'e', collect: 'offer', order: 'name', durationMs: 1000, where: 'is:portrait' },
      ],
    },
    { id: 'portrait', name: 'Portrait', items: [{ id: 'p', media: 'tall', where: 'is:portrait' }] },
    { id: 'empty', name: 'Empty', items: [] },
  ],
} as Plan;

test('a pass is what some screens see of a playlist, in proportion, each turn by the item that it comes from', () => {
  const passes = passesOf(plan, 'house');
  expect(passes.map(({ screens, lengthMs }) => [screens, lengthMs])).toEqual([
    [['wide-1', 'wide-2'], 28_000],
    [['tall-1'], 34_000],
    [['crew'], 18_000],
  ]);
  expect(passes[1]?.turns.map(({ media, item, startMs }) => [media, item, startMs])).toEqual([
    ['flag', 0, 0],
    ['sale-a', 1, 8000],
    ['sale-b', 1, 13_000],
    ['tall', 2, 18_000],
    ['flag', 3, 22_000],
    ['sale-a', 4, 32_000],
    ['sale-b', 4, 33_000],
  ]);
});

test('screens on which nothing may show see no pass', () => {
  expect(passesOf(plan, 'portrait').map(({ screens }) => screens)).toEqual([['tall-1']]);
  expect(passesOf(plan, 'empty')).toEqual([]);
  expect(() => passesOf(plan, 'nowhere')).toThrow(RangeError);
});

test('a pass is as long as its turns, and they follow on each other', () => {
  for (const { lengthMs, turns } of passesOf(plan, 'house')) {
    expect(turns.reduce((sum, { durationMs }) => sum + durationMs, 0)).toBe(lengthMs);
    turns.slice(1).forEach(({ startMs }, i) => {
      expect(startMs).toBe((turns[i]?.startMs ?? 0) + (turns[i]?.durationMs ?? 0));
    });
  }
});

test('a turn is of the item that it came by, though one that is for other screens names the same file', () => {
  const items = [
    { media: 'flag', durationMs: 10_000 },
    { media: 'flag', where: 'nowhere' },
    { media: 'flag', durationMs: 1_000 },
  ];
  const again = { ...plan, playlists: [{ id: 'again', name: 'Again', items }] };
  expect(passesOf(again, 'again')[0]?.turns.map(({ item, durationMs }) => [item, durationMs])).toEqual([
    [0, 10_000],
    [2, 1_000],
  ]);
});
