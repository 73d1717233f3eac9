import { parseInstant } from '../instant';
import { type Plan } from '../plan';
import { airTime, forecast, neverShown, screenProgram } from '.';
import { smallPlan } from '../tests/small-plan';

const at = (text: string) => parseInstant(text) as number;
const [from, to] = [at('2026-12-01T00:00:00Z'), at('2026-12-02T00:00:00Z')];

const file = (id: string, rest: object = {}) => ({
  id,
  name: id,
  kind: 'image',
  width: 1,
  height: 1,
  bytes: 1,
  added: '2026-01-01T00:00:00Z',
  ...rest,
});
const booking = (id: string, values: object) => ({
  id,
  name: id,
  where: 'all',
  created: '2026-01-01T00:00:00Z',
  ...values,
});

function plan(bookings: object[], more: object = {}): Plan {
  return smallPlan({
    network: { backdrop: { playlist: 'outer' } },
    screens: ['a', 'b'].map((id) => ({ id, tags: [id] })),
    media: ['one', 'two', 'three', 'spare'].map((id) => file(id)),
    playlists: [
      { id: 'inner', name: 'Inner', items: [{ media: 'two' }, { media: 'three', where: 'b' }] },
      { id: 'outer', name: 'Outer', items: [{ media: 'one' }, { playlist: 'inner' }] },
    ],
    bookings,
    ...more,
  });
}

const HOUR = 3_600_000;

test('a booking has the time in which it wins, and a turn for each item', () => {
  const own = plan([
    booking('long', { content: { playlist: 'outer' }, when: { windows: [['06:00', '08:00']] } }),
    booking('over', { content: { media: 'spare' }, where: 'a', priority: 4, when: { windows: [['07:00', '09:00']] } }),
  ]);
  expect(airTime(own, { kind: 'booking', id: 'long' }, from, to)).toEqual([
    { screen: 'a', ms: HOUR, plays: 360, first: from + 6 * HOUR },
    { screen: 'b', ms: 2 * HOUR, plays: 720, first: from + 6 * HOUR },
  ]);
});

test('a nested playlist, and a file, have their share of the air wherever they are used', () => {
  const own = plan([]);
  const day = 24 * HOUR;
  expect(airTime(own, { kind: 'playlist', id: 'inner' }, from, to).map(({ screen, ms }) => [screen, ms / day])).toEqual(
    [
      ['a', 1 / 2],
      ['b', 2 / 3],
    ],
  );
  expect(airTime(own, { kind: 'media', id: 'three' }, from, to)).toEqual([
    { screen: 'b', ms: day / 3, plays: 2880, first: from + 20_000 },
  ]);
});

test('all files together are on air as long as anything is: the sum of the answers is the forecast', () => {
  const own = plan([
    booking('noon', {
      content: { media: 'spare', durationMs: 7000 },
      where: 'a',
      when: { windows: [['11:59:30', '12:10']] },
    }),
  ]);
  const sum = own.media
    .flatMap(({ id }) => airTime(own, { kind: 'media', id }, from, to))
    .filter((one) => one.screen === 'a')
    .reduce((total, one) => ({ ms: total.ms + one.ms, plays: total.plays + one.plays }), { ms: 0, plays: 0 });
  const { plays } = forecast(screenProgram(own, 'a'), from, to, { plays: true });
  expect(sum).toEqual({ ms: to - from, plays: plays.length });
});

test('what never shows is told with its reason, and with who hides it', () => {
  const own = plan(
    [
      booking('ahead', { content: { media: 'one' }, priority: 5, when: { windows: [['06:00', '10:00']] } }),
      booking('under', { content: { media: 'two' }, when: { windows: [['07:00', '08:00']] } }),
      booking('held', { content: { media: 'two' }, onHold: true }),
      booking('over', { content: { media: 'two' }, when: { to: '2026-11-01' } }),
      booking('nowhere', { content: { media: 'two' }, where: 'roof' }),
      booking('asleep', {
        content: { media: 'two' },
        where: 'b',
        priority: 5,
        when: { windows: [['23:00', '23:30']] },
      }),
      booking('empty', { content: { media: 'gone' }, when: { windows: [['12:00', '13:00']] } }),
      booking('cut', { content: { playlist: 'slow' }, when: { windows: [['14:00', '14:00:05']] } }),
    ],
    {
      media: ['one', 'two', 'three', 'spare', 'last']
        .map((id) => file(id))
        .concat(file('gone', { when: { to: '2026-01-31' } })),
      screens: ['a', 'b'].map((id) => ({
        id,
        name: id,
        site: 'quay',
        width: 2,
        height: 1,
        tags: [id],
        ...(id === 'b' ? { lightsOut: [{ windows: [['22:00', '05:00']] }] } : {}),
      })),
      playlists: [
        { id: 'inner', name: 'Inner', items: [{ media: 'two' }, { media: 'three', where: 'b' }] },
        { id: 'outer', name: 'Outer', items: [{ media: 'one' }, { playlist: 'inner' }] },
        { id: 'slow', name: 'Slow', items: [{ media: 'one' }, { media: 'last' }] },
        { id: 'drawer', name: 'Drawer', items: [{ media: 'one' }] },
      ],
    },
  );
  expect(
    neverShown(own, from, to).map(({ subject, because, hiddenBy }) => [
      `${subject.kind} ${subject.id}`,
      because,
      hiddenBy.join(),
    ]),
  ).toEqual([
    ['booking under', 'hidden', 'ahead'],
    ['booking held', 'on hold', ''],
    ['booking over', 'no time', ''],
    ['booking nowhere', 'no screen', ''],
    ['booking asleep', 'hidden', 'lights-out'],
    ['booking empty', 'nothing to show', ''],
    ['playlist drawer', 'not used', ''],
    ['media spare', 'not used', ''],
    ['media last', 'never its turn', ''],
    ['media gone', 'no time', ''],
  ]);
});
