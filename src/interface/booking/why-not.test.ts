import { NetworkForecast, whyNotShown } from '@/core/forecast';
import { parseInstant } from '@/core/instant';
import { type Plan } from '@/core/plan';
import { whyNotWords } from './why-not';
import { smallPlan } from '@/core/tests/small-plan';
import { readRows } from '@/core/tests/rows';

const [from, to] = [parseInstant('2026-12-01T00:00:00Z') as number, parseInstant('2026-12-02T00:00:00Z') as number];

/** A screen whose displays are off from 22:00 to 23:00, with one booking that is looked at and one that may be ahead of it. */
function planWith(own: object, ahead: object): Plan {
  const media = (id: string, more = {}) => ({
    ...{ id, name: id, kind: 'image', width: 1, height: 1, bytes: 1, added: '2026-01-01T00:00:00Z' },
    ...more,
  });
  return smallPlan({
    network: { backdrop: { media: 'flag' } },
    sites: [{ id: 'quay', name: 'Quay', timeZone: 'UTC', hours: { weekly: { TU: [['08:00', '18:00']] } } }],
    screens: [
      {
        id: 'a',
        name: 'A',
        site: 'quay',
        width: 2,
        height: 1,
        tags: ['a'],
        lightsOut: [{ windows: [['22:00', '23:00']] }],
      },
    ],
    media: [media('flag'), media('gone', { when: { to: '2026-01-01' } }), media('old', { archived: true })],
    playlists: [
      { id: 'empty', name: 'Empty', items: [] },
      { id: 'nested', name: 'Nested', items: [{ playlist: 'empty' }, { collect: 'none-has-this' }] },
      { id: 'elsewhere', name: 'Elsewhere', items: [{ media: 'flag', where: 'not a' }] },
    ],
    bookings: [
      {
        id: 'ahead',
        name: 'Ahead',
        where: 'none',
        content: { media: 'flag' },
        ...ahead,
      },
      { id: 'own', name: 'Own', where: 'a', content: { media: 'flag' }, ...own },
    ],
  });
}

function told(own: object, ahead: object = {}): string | null {
  const plan = planWith(own, ahead);
  const booking = plan.bookings.find(({ id }) => id === 'own');
  if (!booking) throw new Error('it is not there');
  const found = whyNotShown(plan, booking, new NetworkForecast(from, to).outcomes(plan), [from, to]);
  return found && whyNotWords(found, booking, plan);
}

test.each<[string, object, object, string | null]>(readRows('../interface/booking/why-not.jsonl'))(
  '%s: what is said of a booking is so',
  (_, own, ahead, words) => {
    const said = told(own, ahead);
    if (words === null) expect(said).toBeNull();
    else expect(said).toMatch(new RegExp(words));
  },
);
