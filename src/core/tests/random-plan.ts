import fc from 'fast-check';
import { readPlan, type Plan } from '../plan';

/** Days around which clocks change somewhere, months end, or a year does: where forecasts go wrong if they do. */
const TENDER_DAYS = ['2026-03-07', '2026-03-28', '2026-04-04', '2026-10-03', '2026-10-24', '2026-10-31', '2026-12-30'];
const ZONES = [
  ...['Europe/Oslo', 'America/St_Johns', 'Australia/Lord_Howe', 'Pacific/Chatham'],
  ...['Asia/Kathmandu', 'America/Los_Angeles', 'UTC', 'Africa/Casablanca'],
];
/** Also where the sun stays up or down, and where the clock is far from the sun's. */
const LOCATIONS = [
  { latitude: 59.9, longitude: 10.7 },
  { latitude: 69.6, longitude: 19 },
  { latitude: -80, longitude: 175 },
  { latitude: 0, longitude: -100 },
];
const TAGS = ['hall', 'deck', 'staff', 'quay', 'north'];
const DAY_NAMES = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];

const two = (n: number) => String(n).padStart(2, '0');

function dateNear(day: string): fc.Arbitrary<string> {
  return fc
    .integer({ min: -9, max: 12 })
    .map((by) => new Date(Date.parse(`${day}T00:00:00Z`) + by * 86_400_000).toISOString().slice(0, 10));
}

const time = fc
  .tuple(fc.integer({ min: 0, max: 23 }), fc.constantFrom(0, 0, 30, 15, 59), fc.constantFrom(0, 0, 0, 30))
  .map(([h, m, s]) => `${two(h)}:${two(m)}${s ? `:${two(s)}` : ''}`);
const nightTime = fc
  .tuple(fc.integer({ min: 0, max: 4 }), fc.constantFrom(0, 30, 45))
  .map(([h, m]) => `${two(h)}:${two(m)}`);
const opening = fc
  .tuple(fc.constantFrom('opens', 'closes', 'sunrise', 'sunset'), fc.constantFrom('', '', '-00:30', '+01:15', '-02:00'))
  .map((parts) => parts.join(''));

const windows = (sited: boolean) => {
  const edge = sited ? fc.oneof(time, nightTime, opening) : fc.oneof(time, nightTime);
  const end = fc.oneof({ weight: 6, arbitrary: edge }, { weight: 1, arbitrary: fc.constant('24:00') });
  const window = fc.oneof(
    { weight: 4, arbitrary: fc.tuple(edge, end) },
    { weight: 1, arbitrary: fc.tuple(edge, end, fc.integer({ min: 1, max: 7 })) },
  );
  return fc.array(window, { minLength: 1, maxLength: 3 });
};

const rule = fc.oneof(
  fc.integer({ min: 1, max: 4 }).map((n) => `FREQ=DAILY;INTERVAL=${n}`),
  fc.integer({ min: 1, max: 9 }).map((n) => `FREQ=DAILY;COUNT=${n}`),
  fc
    .tuple(fc.subarray(DAY_NAMES, { minLength: 1 }), fc.integer({ min: 1, max: 3 }))
    .map(([days, n]) => `FREQ=WEEKLY;INTERVAL=${n};BYDAY=${days.join(',')}`),
  fc.constantFrom(...['FREQ=MONTHLY;BYDAY=-1SU', 'FREQ=MONTHLY;BYMONTHDAY=-1,1,15', 'FREQ=MONTHLY;BYDAY=1SA,3WE']),
  fc.constantFrom('FREQ=YEARLY;BYMONTH=3,10,12', 'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1'),
);

const tagged = fc.oneof(
  { weight: 5, arbitrary: fc.constantFrom(...TAGS) },
  { weight: 1, arbitrary: fc.constantFrom('is:portrait', 'is:landscape', 'is:square') },
  { weight: 1, arbitrary: fc.constantFrom('screen:one', 'screen:two', 'site:far', 'site:near') },
  { weight: 2, arbitrary: fc.constant('all') },
);
const selector = fc.oneof(
  tagged,
  fc.tuple(tagged, fc.constantFrom('and', 'or', 'and not', 'or not'), tagged).map((parts) => parts.join(' ')),
  fc.tuple(tagged, tagged, tagged).map(([a, b, c]) => `not (${a} or ${b}) and ${c} or ${b}`),
);

function when(day: string, calendars = true): fc.Arbitrary<object> {
  const one = setOfHours(day, calendars);
  const several = fc.array(one, { minLength: 1, maxLength: 3 }).map((any) => ({ any }));
  return fc.oneof({ weight: 4, arbitrary: one }, { weight: 1, arbitrary: several });
}

function setOfHours(day: string, calendars: boolean): fc.Arbitrary<object> {
  const maybe = <T>(weight: number, arbitrary: fc.Arbitrary<T>) =>
    fc.option(arbitrary, { freq: weight, nil: undefined });
  return fc
    .record({
      clock: maybe(1, fc.constantFrom(...ZONES)),
      from: maybe(2, dateNear(day)),
      to: maybe(1, dateNear(day)),
      repeat: maybe(1, rule),
      also: maybe(1, fc.array(dateNear(day), { maxLength: 2 })),
      except: maybe(1, fc.array(dateNear(day), { maxLength: 3 })),
      only: maybe(1, fc.constant(calendars ? ['storms'] : [])),
      not: maybe(1, fc.constant(calendars ? ['feasts'] : [])),
    })
    .chain((found) =>
      maybe(3, windows(found.clock === undefined)).map((list) => {
        const { repeat, only, not, ...rest } = found;
        return defined({
          ...rest,
          ...(repeat !== undefined && rest.from !== undefined ? { repeat } : {}),
          ...(only?.length ? { only } : {}),
          ...(not?.length ? { not } : {}),
          windows: list,
        });
      }),
    );
}

const defined = (fields: object) =>
  Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined));

const duration = fc.constantFrom(7_000, 10_000, 61_500, 600_000);
const media = fc.constantFrom('map', 'film', 'poster', 'offer');

function item(day: string, lists: readonly string[]): fc.Arbitrary<object> {
  const what = fc.oneof(
    media.map((one) => ({ media: one })),
    fc.constantFrom('name', 'newest', 'oldest').map((order) => ({ collect: 'brand or kind:video', order, limit: 2 })),
    ...(lists.length > 0 ? [fc.constantFrom(...lists).map((playlist) => ({ playlist }))] : []),
  );
  return fc
    .tuple(what, fc.option(selector, { freq: 3 }), fc.option(when(day), { freq: 3 }), fc.option(duration))
    .map(([content, where, condition, durationMs]) => ({
      ...content,
      ...(where === null ? {} : { where }),
      ...(condition === null ? {} : { when: condition }),
      ...(durationMs === null || 'playlist' in content ? {} : { durationMs }),
    }));
}

const hours = fc.record({
  weekly: fc
    .array(
      fc.constantFrom(
        [['05:30', '22:00']],
        [['18:00', '01:00']],
        [
          ['09:00', '12:00'],
          ['13:00', '17:30'],
        ],
        [],
      ),
      {
        minLength: 7,
        maxLength: 7,
      },
    )
    .map((days) => Object.fromEntries(days.map((periods, i) => [DAY_NAMES[i], periods]))),
});

/** A range of some hours to three days near a tender day. */
function rangeNear(day: string): fc.Arbitrary<readonly [from: number, to: number]> {
  const start = Date.parse(`${day}T00:00:00Z`);
  return fc
    .tuple(fc.integer({ min: -1_440, max: 1_440 }), fc.integer({ min: 60, max: 4_320 }))
    .map(([after, minutes]) => [start + after * 60_000 + 1, start + (after + minutes) * 60_000] as const);
}

export interface RandomPlan {
  /** The plan file as it was made. */
  readonly document: object;
  readonly plan: Plan;
  readonly from: number;
  readonly to: number;
}

/** Small plans of everything that a plan can say, with a range of time in which something happens. Each is valid. */
export const randomPlan: fc.Arbitrary<RandomPlan> = fc.constantFrom(...TENDER_DAYS).chain((day) => {
  const content = fc.oneof(
    fc.constantFrom('outer', 'inner').map((playlist) => ({ playlist })),
    fc.tuple(media, duration).map(([one, durationMs]) => ({ media: one, durationMs })),
  );
  const booking = fc
    .record({
      content,
      where: selector,
      priority: fc.integer({ min: 1, max: 5 }),
      takeover: fc.constantFrom(false, false, false, true),
      wake: fc.boolean(),
      onHold: fc.constantFrom(false, false, false, false, true),
      created: dateNear(day).map((date) => `${date}T10:00:00Z`),
      when: when(day),
    })
    .map(({ takeover, wake, onHold, ...rest }) => ({
      ...rest,
      ...(takeover ? { takeover, ...(wake ? { wake } : {}) } : {}),
      ...(onHold ? { onHold } : {}),
    }));
  return fc
    .record({
      range: rangeNear(day),
      zones: fc.tuple(fc.constantFrom(...ZONES), fc.constantFrom(...ZONES)),
      hours,
      location: fc.option(fc.constantFrom(...LOCATIONS), { freq: 4 }),
      tags: fc.tuple(fc.subarray(TAGS), fc.subarray(TAGS), fc.subarray(TAGS)),
      backdrops: fc.tuple(fc.option(content), fc.option(content), fc.option(content)),
      lightsOut: fc.option(fc.array(when(day), { minLength: 1, maxLength: 2 })),
      dates: fc.tuple(fc.array(dateNear(day), { maxLength: 6 }), fc.array(dateNear(day), { maxLength: 3 })),
      inner: fc.array(item(day, []), { maxLength: 3 }),
      outer: fc.array(item(day, ['inner']), { minLength: 1, maxLength: 4 }),
      fileWhen: fc.option(when(day, false), { freq: 2 }),
      bookings: fc.array(booking, { maxLength: 6 }),
    })
    .map((made) => {
      const document = documentOf(made);
      const read = readPlan(document);
      if (!read.ok) throw new Error(JSON.stringify(read.problems));
      return { document, plan: read.value, from: made.range[0], to: made.range[1] };
    });
});

interface Made {
  readonly zones: readonly [string, string];
  readonly hours: object;
  readonly location: object | null;
  readonly tags: readonly (readonly string[])[];
  readonly backdrops: readonly (object | null)[];
  readonly lightsOut: readonly object[] | null;
  readonly dates: readonly (readonly string[])[];
  readonly inner: readonly object[];
  readonly outer: readonly object[];
  readonly fileWhen: object | null;
  readonly bookings: readonly object[];
}

function documentOf(made: Made): object {
  const { zones, tags, backdrops } = made;
  const backdrop = (i: number) => (backdrops[i] ? { backdrop: backdrops[i] } : {});
  const file = (id: string, name: string, kind: string, more: object) => ({
    ...{ id, name, kind, width: 1920, height: 1080, bytes: 1000, added: '2026-01-05T09:00:00Z' },
    ...more,
  });
  return {
    ...{ format: 'lanternpost/plan', version: 1 },
    network: { name: 'Small line', defaultDurationMs: 12_000, ...backdrop(0) },
    calendars: [
      { id: 'storms', name: 'Storms', dates: made.dates[0] },
      { id: 'feasts', name: 'Feasts', dates: made.dates[1] },
    ],
    sites: [
      { id: 'near', name: 'Near', timeZone: zones[0], tags: tags[0], hours: made.hours, ...backdrop(1) },
      { id: 'far', name: 'Far', timeZone: zones[1], ...(made.location ? { location: made.location } : {}) },
    ],
    screens: [
      { id: 'one', name: 'One', site: 'near', width: 1920, height: 1080, tags: tags[1], ...backdrop(2) },
      {
        ...{ id: 'two', name: 'Two', site: 'far', width: 1080, height: 1920, tags: tags[2] },
        ...(made.lightsOut ? { lightsOut: made.lightsOut } : {}),
      },
    ],
    media: [
      file('map', 'Map', 'image', { tags: ['brand'] }),
      file('film', 'Film', 'video', { durationMs: 42_000 }),
      file('poster', 'Aster', 'image', { tags: ['brand'], added: '2026-01-06T09:00:00Z' }),
      file('offer', 'Offer', 'image', made.fileWhen ? { when: made.fileWhen } : {}),
    ],
    playlists: [
      { id: 'inner', name: 'Inner', items: made.inner },
      { id: 'outer', name: 'Outer', items: made.outer },
    ],
    bookings: made.bookings.map((one, i) => ({ id: `b${i}`, name: `Booking ${i}`, ...one })),
  };
}
