import { parseInstant } from '../instant';
import { collectedBy, findMedia } from '../plan';
import { forecast, leftOut, neverShown, passesOf, screenProgram } from '.';
import { smallPlan } from '../tests/small-plan';

const FILE = { kind: 'image', width: 1, height: 1, bytes: 1, added: '2026-01-01T00:00:00Z' } as const;
const [from, to] = [parseInstant('2026-12-01T00:00:00Z'), parseInstant('2026-12-01T01:00:00Z')] as [number, number];

/** Three files and two playlists in a loop; some of them archived. */
const planWith = (archived: readonly string[], order: 'listed' | 'shuffled' = 'listed') => {
  const put = (id: string) => ({ id, name: id, ...(archived.includes(id) ? { archived: true } : {}) });
  const file = (id: string, tags: string[] = []) => ({ ...put(id), ...FILE, tags });
  return smallPlan({
    sites: [{ id: 'quay', name: 'Quay', timeZone: 'Europe/Oslo' }],
    screens: [{ id: 'hall', name: 'Hall', site: 'quay', width: 2, height: 1 }],
    media: [file('a'), file('b', ['offer']), file('c', ['offer']), file('d')],
    playlists: [
      { ...put('inner'), items: [{ media: 'd' }] },
      {
        ...put('loop'),
        ...{ order, items: [{ media: 'a' }, { collect: 'offer', order: 'name' }, { playlist: 'inner' }] },
      },
    ],
    bookings: [
      { id: 'a-alone', name: 'A', content: { media: 'a' }, created: FILE.added },
      {
        ...{
          id: 'loop',
          name: 'Loop',
          content: { playlist: 'loop' },
          where: 'all',
          created: FILE.added,
          priority: 4,
        },
        when: { clock: 'UTC', from: '2026-12-01' },
      },
    ],
  });
};
const shows = (plan: ReturnType<typeof planWith>, count: number) =>
  forecast(screenProgram(plan, 'hall'), from, to, { plays: true })
    .plays.slice(0, count)
    .map((play) => play.media);

test.each([
  [[], ['a', 'b', 'c', 'd', 'a']],
  [['a'], ['b', 'c', 'd', 'b']],
  [['b'], ['a', 'c', 'd', 'a']],
  [['inner'], ['a', 'b', 'c', 'a']],
  [
    ['b', 'c', 'd'],
    ['a', 'a'],
  ],
  [['loop'], ['a']],
] as [string[], string[]][])('without what is archived (%j) a loop shows %j', (archived, expected) => {
  expect(shows(planWith(archived), expected.length)).toEqual(expected);
});

test('a shuffled pass stays as it was but for what is archived', () => {
  const first = shows(planWith([], 'shuffled'), 4);
  for (const gone of ['a', 'd']) {
    const left = shows(planWith([gone], 'shuffled'), 3);
    expect(left).toEqual(first.filter((one) => one !== gone));
  }
});

test('what is archived is found by no search and no rule, and is left out by that name', () => {
  const plan = planWith(['b', 'a', 'inner']);
  expect(findMedia(plan.media, '').map(({ id }) => id)).toEqual(['c', 'd']);
  expect(findMedia(plan.media, 'offer').map(({ id }) => id)).toEqual(['c']);
  expect(collectedBy(new Set(['offer']), plan.media).map(({ id }) => id)).toEqual(['c']);
  const loop = plan.playlists.find(({ id }) => id === 'loop') as (typeof plan.playlists)[number];
  expect(leftOut(plan, loop, passesOf(plan, 'loop')[0], 'hall', from)).toEqual([
    { item: 0, reason: { kind: 'archived' } },
    { item: 2, reason: { kind: 'archived' } },
  ]);
});

test('of what never shows, what is archived is not told, but what shows it is', () => {
  const told = (archived: string[]) =>
    neverShown(planWith(archived), from, to).map(({ subject, because }) => `${subject.id}: ${because}`);
  expect(told(['a'])).toEqual(['a-alone: archived']);
  expect(told(['inner'])).toEqual(['a-alone: hidden', 'd: no screen']);
});
