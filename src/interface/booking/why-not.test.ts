import { NetworkForecast, whyNotShown } from '@/core/forecast';
import { parseInstant } from '@/core/instant';
import { type Plan } from '@/core/plan';
import { whyNotWords } from './why-not';
import { smallPlan } from '@/core/tests/small-plan';

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

test.each<[string, object, object, RegExp | null]>([
  ['it shows', {}, {}, null],
  ['until closing it has a time', { when: { windows: [['10:00', 'closes']] } }, {}, null],
  ['on hold', { onHold: true }, {}, /^It is on hold, so no screen shows it/],
  [
    'a takeover that is prepared',
    { onHold: true, takeover: true },
    {},
    /It is prepared, and shows when it is activated./,
  ],
  ['an archived file', { content: { media: 'old' } }, {}, /^What it shows is archived/],
  ['an empty playlist', { content: { playlist: 'empty' } }, {}, /^Nothing is in its playlist/],
  ['a playlist of nothing but empty ones', { content: { playlist: 'nested' } }, {}, /^Nothing is in its playlist/],
  ['items for other screens', { content: { playlist: 'elsewhere' } }, {}, /^Nothing in it is for these screens/],
  ['a file that is over', { content: { media: 'gone' } }, {}, /^Nothing in it is available at that time/],
  ['another day', { when: { from: '2026-12-02' } }, {}, /^It has no time in these days/],
  ['while displays are off', { when: { windows: [['22:15', '22:45']] } }, {}, /^Its screens are off all that time/],
  [
    'behind another',
    { priority: 1 },
    { priority: 5, where: 'a' },
    /It shows on no screen in these days, because “Ahead” goes ahead of it the whole time, but/,
  ],
  [
    'behind another all day',
    { priority: 1, when: { windows: [['09:00', '12:00']] } },
    { priority: 5, where: 'a' },
    /It shows on no screen in these days, because “Ahead” goes ahead of it the whole time./,
  ],
])('%s: what is said of a booking is so', (_, own, ahead, words) => {
  const said = told(own, ahead);
  if (words === null) expect(said).toBeNull();
  else expect(said).toMatch(words);
});
