import { entryPatches } from './entries';
import { changeSentences, conflictSentence, fieldLabel, fieldSaid, namesIn } from './sentences';
import { hoursWords } from './say';
import { type Plan } from '.';
import { smallPlan } from '../tests/small-plan';

const NAMES: Record<string, string> = {
  'media flag': 'Flag',
  'playlist house': 'House',
  'site quay': 'Quay',
  'calendar storm': 'Storm days',
};
const names = (kind: string, id: string) => NAMES[`${kind} ${id}`] ?? id;

describe('what a change made of an object, in words', () => {
  const screen = { id: 'hall', name: 'Hall', site: 'quay', width: 1920, height: 1080 };
  const booking = {
    id: 'b',
    name: 'B',
    content: { media: 'flag' },
    where: 'all',
    priority: 3,
    created: '2026-01-01T00:00:00Z',
    when: {},
  };

  test.each<[Parameters<typeof changeSentences>[0], object, object, string[]]>([
    [
      'screen',
      screen,
      { ...screen, name: 'Great hall', width: 1280 },
      ['name “Great hall”, was “Hall”', 'width 1280 px, was 1920 px'],
    ],
    ['screen', screen, { ...screen, site: 'pier' }, ['site “pier”, was “Quay”']],
    ['screen', screen, { ...screen, tags: ['hall', 'north'] }, ['tags hall north']],
    ['screen', { ...screen, tags: [] }, { ...screen, tags: ['a'] }, ['tags a, was none']],
    ['screen', screen, { ...screen, lightsOut: [{ windows: [['23:00', '05:00']] }] }, ['lights-out daily 23:00–05:00']],
    ['screen', screen, { ...screen, lightsOut: [] }, ['lights-out never']],
    ['booking', booking, { ...booking, content: { playlist: 'house' } }, ['what “House”, was “Flag”']],
    [
      'booking',
      booking,
      { ...booking, content: { media: 'flag', durationMs: 90_000 } },
      ['what “Flag” for 1 min 30 s, was “Flag”'],
    ],
    ['booking', booking, { ...booking, takeover: true, onHold: true }, ['takeover', 'on hold']],
    ['booking', { ...booking, wake: true }, { ...booking, wake: false }, ['no longer wakes displays']],
    ['booking', booking, { ...booking, when: { not: ['storm'] } }, ['when not on Storm days, was always']],
    ['network', { name: 'N' }, { name: 'N', defaultDurationMs: 60_000 }, ['usual duration 1 min']],
    [
      'calendar',
      { id: 'c', name: 'C', dates: [] },
      { id: 'c', name: 'C', dates: ['2026-01-01', ['2026-02-01', '2026-02-03']] },
      ['dates 2026-01-01, 2026-02-01 to 2026-02-03, was none'],
    ],
    [
      'calendar',
      { id: 'c', name: 'C', dates: [], holidays: { country: 'NO' } },
      {
        id: 'c',
        name: 'C',
        dates: ['2026-01-01', '2026-01-02', '2026-01-03', '2026-01-04', '2026-01-05', '2026-01-06', '2026-01-07'],
        holidays: { country: 'DE', region: 'BY' },
      },
      [
        'dates 2026-01-01, 2026-01-02, 2026-01-03, 2026-01-04, 2026-01-05, 2026-01-06 and 1 more, was none',
        'public holidays DE-BY, was NO',
      ],
    ],
  ])('%s: %j', (kind, before, after, sentences) => {
    expect(changeSentences(kind, before, after, names)).toEqual(sentences);
  });

  test('what was added, removed or left alone has none', () => {
    expect(changeSentences('screen', null, screen, names)).toEqual([]);
    expect(changeSentences('screen', screen, null, names)).toEqual([]);
    expect(changeSentences('screen', screen, { ...screen }, names)).toEqual([]);
  });

  test("a playlist's entries: put in, taken out, moved, changed", () => {
    const list = (...items: object[]) => ({ id: 'p', name: 'P', items });
    const [flag, house, rule] = [
      { id: 'e1', media: 'flag' },
      { id: 'e2', playlist: 'house' },
      { id: 'e3', collect: 'poster' },
    ];
    const said = (before: object, after: object) => changeSentences('playlist', before, after, names);
    expect(said(list(flag), list(flag, house, rule))).toEqual(['“House” added', '“all poster” added']);
    expect(said(list(flag, house), list(house))).toEqual(['“Flag” removed']);
    expect(said(list(flag, house, rule), list(rule, flag, house))).toEqual(['“all poster” moved']);
    expect(said(list({ ...flag, durationMs: 500 }), list({ ...flag, durationMs: 20_000, where: 'hall' }))).toEqual([
      '“Flag”: duration 20 s, was 0.5 s, where hall',
    ]);
    expect(said(list(house), list({ id: 'e2', playlist: 'other' }))).toEqual([
      '“other”: playlist “other”, was “House”',
    ]);
    expect(said(list(flag), list({ id: 'e1', media: 'card' }))).toEqual(['“card”: file “card”, was “Flag”']);
    expect(said(list(flag, rule), list())).toEqual(['“Flag” removed', '“all poster” removed']);
    expect(said(list({ ...rule, limit: 5 }), list({ ...rule, order: 'newest' }))).toEqual([
      '“all poster”: limit none, was 5, order newest',
    ]);
  });
});

describe('where two changed the same', () => {
  const now = { name: 'Hall', items: [{ id: 'e1', media: 'flag', durationMs: 10_000 }] };

  test.each([
    [
      { field: 'width', theirs: 1080, mine: 1280 },
      'Ida changed “width” to 1080 px while you were editing. Yours is 1280 px.',
    ],
    [{ field: 'tags', theirs: null, mine: ['a'] }, 'Ida changed “tags” to none while you were editing. Yours is a.'],
    [{ field: 'mood', theirs: 1, mine: { a: 2 } }, 'Ida changed “mood” to 1 while you were editing. Yours is {"a":2}.'],
  ])('a field of the object: %j', (conflict, sentence) => {
    expect(conflictSentence('screen', conflict, now, names, 'Ida')).toBe(sentence);
  });

  test("an entry's field, an entry that is gone, and a kind that has no entries", () => {
    const conflict = { entry: 'e1', field: 'durationMs', theirs: 10_000, mine: 5000 };
    expect(conflictSentence('playlist', conflict, now, names, 'Ida')).toBe(
      'Ida changed “Flag” while you were editing: duration is 10 s. Yours is 5 s.',
    );
    expect(conflictSentence('playlist', { ...conflict, entry: 'e9' }, now, names, 'Ida')).toBe(
      'Ida removed this while you were editing.',
    );
    expect(conflictSentence('playlist', conflict, null, names, 'Ida')).toBe('Ida removed this while you were editing.');
    expect(conflictSentence('screen', conflict, now, names, 'Ida')).toBe('Ida changed this while you were editing.');
  });

  test('fields and values by themselves', () => {
    expect([fieldLabel('screen', 'lightsOut'), fieldLabel('screen', 'mood')]).toEqual(['lights-out', 'mood']);
    expect([fieldSaid('screen', 'width', 5, names), fieldSaid('screen', 'width', undefined, names)]).toEqual([
      '5 px',
      'none',
    ]);
  });
});

test('names of a plan, by kind and id; the id where there is none', () => {
  const plan = smallPlan({
    network: { name: 'Line' },
    sites: [{ id: 'quay', name: 'The quay', timeZone: 'UTC' }],
  }) as Plan;
  const called = namesIn(plan);
  expect([
    called('site', 'quay'),
    called('site', 'pier'),
    called('ship', 'quay'),
    called('network', 'network'),
  ]).toEqual([...['The quay', 'pier', 'quay', 'Line']]);
});

test('opening hours: days alike are joined', () => {
  expect(hoursWords({})).toBe('daily closed');
  expect(
    hoursWords({
      weekly: {
        MO: [['05:30', '22:00']],
        TU: [['05:30', '22:00']],
        SA: [
          ['09:00', '12:00'],
          ['13:00', '18:00'],
        ],
      },
      dates: { '2026-12-25': [] },
    }),
  ).toBe('MO TU 05:30–22:00, WE TH FR SU closed, SA 09:00–12:00 13:00–18:00, 2026-12-25 closed');
});

test('an empty patch of a list says nothing', () => {
  expect(entryPatches([{ id: 'a' }], [{ id: 'a' }])).toEqual([]);
});
