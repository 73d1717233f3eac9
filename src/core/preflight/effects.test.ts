import { HOUR } from '../instant';
import { type Plan } from '../plan';
import { besidesOf, findings } from '.';
import { smallPlan } from '../tests/small-plan';

/** One Monday on two screens: the notice stands on both, the menu on the café's alone, and the tide over noon on the hall's. */
function plan(...more: object[]): Plan {
  const booking = (id: string, where: string, windows: string[][], rest: object = {}) => ({
    ...{ id, name: id, content: { media: id }, where, created: '2026-01-01T00:00:00Z', when: { windows }, ...rest },
  });
  const media = ['notice', 'menu', 'tide', 'flag'].map((id) => ({
    ...{ id, name: id, kind: 'image', width: 2, height: 1, bytes: 1, added: '2026-01-01T00:00:00Z' },
  }));
  return smallPlan({
    network: { backdrop: { media: 'flag' } },
    screens: ['hall', 'cafe'].map((id) => ({ id, tags: [id] })),
    media,
    bookings: [
      booking('notice', 'all', [['08:00', '18:00']]),
      booking('menu', 'cafe', [['12:00', '14:00']]),
      booking('tide', 'hall', [['11:00', '13:00']], { priority: 3 }),
      ...more,
    ],
  });
}
const [from, to] = [Date.UTC(2026, 11, 7), Date.UTC(2026, 11, 8)];
const clash = (of: Plan, about: string) =>
  findings(of, from, to, from).find(({ kind, about: ids }) => kind === 'clash' && ids.includes(about));

test('what a fix changes is told apart from what it is for: the notice raised goes ahead of the tide too', () => {
  const own = plan();
  const found = clash(own, 'menu');
  if (!found) throw new Error('no clash');
  expect(found.fixes.map(({ label }) => label)).toEqual([
    '“notice” ahead of “menu”',
    '“menu” ahead of “notice”',
    'Remove “notice” from this screen',
  ]);
  expect(besidesOf(own, found, found.fixes, from, to)).toEqual([
    { screens: 1, longestMs: 2 * HOUR },
    { screens: 0, longestMs: 0 },
    { screens: 1, longestMs: 8 * HOUR },
  ]);
});

test('a fix that undoes an earlier one says so: the menu lowered again', () => {
  const own = plan({
    ...{ id: 'soup', name: 'soup', content: { media: 'flag' }, where: 'cafe', priority: 4 },
    ...{ created: '2026-01-01T00:00:00Z', when: { windows: [['13:00', '14:00']] } },
  });
  const found = clash(own, 'menu');
  if (!found) throw new Error('no clash');
  // On the café's screen the menu would now hide the soup, which was put ahead of it.
  const [, ahead] = besidesOf(own, found, found.fixes, from, to);
  expect(ahead).toEqual({ screens: 0, longestMs: 0 });
  const [raised] = besidesOf(
    own,
    found,
    [{ edits: [{ kind: 'booking', id: 'menu', set: { priority: 5 } }] }],
    from,
    to,
  );
  expect(raised).toEqual({ screens: 1, longestMs: HOUR });
});
