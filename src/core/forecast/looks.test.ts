import { compileEdition, diffPlans } from '../edition';
import { touchedScreens } from '../edition/touched';
import { readPlan, sharing, type Item, type Media, type Playlist } from '../plan';
import { orThrow } from '../refusal';
import { loopLength, musicPlays, passesOf, placeOf, screenProgram, segments, soundLength, type Segment } from '.';

/** What shows and sounds beside the forecast (domain section 9): transitions, fits, volumes, music. */

const CREATED = '2026-01-01T00:00:00Z';
const file = (id: string, more: Partial<Media> = {}) => ({
  ...{ id, name: id, kind: 'image', width: 2, height: 1, bytes: 1, added: CREATED },
  ...{ sha256: 'a'.repeat(64), type: 'image/png' },
  ...more,
});
const sound = (id: string, durationMs: number, more: Partial<Media> = {}) =>
  file(id, { kind: 'sound', width: undefined, height: undefined, type: 'audio/mp4', durationMs, ...more });

const FILES = [
  file('one'),
  file('two', { focus: [0.2, 0.9] }),
  file('film', { kind: 'video', type: 'video/mp4', durationMs: 7_000, audio: true }),
  sound('waves', 4_000, { tags: ['sea'] }),
  sound('gulls', 3_000, { tags: ['sea', 'north'] }),
];

interface Given {
  readonly items: readonly Item[];
  readonly order?: 'shuffled';
  readonly music?: Playlist['music'];
  readonly sounds?: readonly Item[];
  readonly media?: readonly object[];
}

const planOf = ({ items, order, music, sounds = [], media = FILES }: Given) =>
  orThrow(
    readPlan(
      JSON.parse(
        JSON.stringify({
          format: 'lanternpost/plan',
          version: 1,
          network: { name: 'N' },
          sites: [{ id: 'quay', name: 'Quay', timeZone: 'UTC' }],
          screens: [
            { id: 'hall', name: 'Hall', site: 'quay', width: 2, height: 1, tags: ['hall'] },
            { id: 'deck', name: 'Deck', site: 'quay', width: 2, height: 1 },
          ],
          media,
          playlists: [
            { id: 'loop', name: 'Loop', items, order, music },
            { id: 'sea', name: 'Sea', items: sounds },
          ],
          bookings: [
            { id: 'b', name: 'B', content: { playlist: 'loop' }, where: 'hall', created: CREATED },
            { id: 'c', name: 'C', content: { media: 'waves' }, where: 'deck', created: CREATED },
          ],
        }),
      ),
    ),
  );

test('a turn carries how it looks, without what is usual; a transition takes at most half of it', () => {
  const plan = planOf({
    items: [
      { media: 'one', durationMs: 1_001, transition: { kind: 'fade', ms: 600 }, fit: 'fill' },
      { media: 'two', durationMs: 2_000, transition: { kind: 'slide', ms: 600 }, fit: 'whole', volume: 0 },
      { media: 'film', transition: { kind: 'cut', ms: 600 }, volume: 0.5 },
      {
        collect: 'kind:image',
        order: 'name',
        durationMs: 5_000,
        transition: { kind: 'wipe', ms: 5_000 },
        fit: 'exact',
      },
    ],
  });
  const [loop = []] = screenProgram(plan, 'hall').loops;
  expect(loop.map(({ through: _through, place: _place, when: _when, ...turn }) => turn)).toEqual([
    { media: 'one', durationMs: 1_001, transition: { kind: 'fade', ms: 500 }, fit: 'fill' },
    { media: 'two', durationMs: 2_000, transition: { kind: 'slide', ms: 600 } },
    { media: 'film', durationMs: 7_000, volume: 0.5 },
    { media: 'one', durationMs: 5_000, transition: { kind: 'wipe', ms: 2_500 }, fit: 'exact' },
    { media: 'two', durationMs: 5_000, transition: { kind: 'wipe', ms: 2_500 }, fit: 'exact' },
  ]);
});

test('a sound shows nowhere: not in a loop, not by a rule, not alone, and no pass is longer for it', () => {
  const plan = planOf({ items: [{ media: 'one' }, { media: 'waves' }, { collect: 'sea' }, { media: 'two' }] });
  const program = screenProgram(plan, 'hall');
  expect(program.loops.map((loop) => loop.map(({ media }) => media))).toEqual([['one', 'two']]);
  expect(program.music).toBeUndefined();
  expect(screenProgram(plan, 'deck').bookings).toEqual([]);
  expect(loopLength(plan, plan.playlists[0]?.items ?? [])).toBe(20_000);
  expect(passesOf(plan, 'loop').map(({ lengthMs }) => lengthMs)).toEqual([20_000]);
  // One sound by itself, and two by the rule.
  expect(soundLength(plan, plan.playlists[0]?.items ?? [])).toBe(4_000 + 7_000);
  expect(soundLength(plan, [{ playlist: 'loop' }, { media: 'one' }])).toBe(11_000);
});

test('the files that a rule collects for the eye have the places that they would have without sounds', () => {
  const items: Item[] = [{ collect: 'north or kind:image', order: 'name' }, { media: 'film' }];
  const shuffled = (media: readonly object[]) =>
    screenProgram(planOf({ items, order: 'shuffled', media }), 'hall').orders;
  expect(shuffled(FILES)).toEqual(shuffled(FILES.filter(({ id }) => id !== 'gulls')));
});

const MUSIC = { playlist: 'sea', volume: 0.4 };
const DAY = [Date.UTC(2026, 11, 1), Date.UTC(2026, 11, 2)] as const;

test('music is the sounds of its playlist, in rounds of its own from the start of the occurrence', () => {
  const plan = planOf({
    items: [{ media: 'one' }, { media: 'two' }],
    music: MUSIC,
    sounds: [{ media: 'waves' }, { media: 'one' }, { media: 'gulls' }],
  });
  const program = screenProgram(plan, 'hall');
  const [segment] = segments(program, placeOf(program), ...DAY);
  const plays = musicPlays(program, placeOf(program), {
    ...(segment as Segment),
    from: DAY[0] + 3_000,
    to: DAY[0] + 12_000,
  });
  expect(plays.map(({ media, from, start }) => [media, from - DAY[0], start - DAY[0]])).toEqual([
    ['waves', 3_000, 0],
    ['gulls', 4_000, 4_000],
    ['waves', 7_000, 7_000],
    ['gulls', 11_000, 11_000],
  ]);
  expect(program.music).toMatchObject([{ volume: 0.4 }]);
});

test.each([
  ['at no volume', { music: { ...MUSIC, volume: 0 }, sounds: [{ media: 'waves' }] }],
  ['with pictures alone', { music: MUSIC, sounds: [{ media: 'one' }] }],
  ['for other screens', { music: MUSIC, sounds: [{ media: 'waves', where: 'is:portrait' }] }],
] as [string, Partial<Given>][])('music %s is none', (_, given) => {
  expect(screenProgram(planOf({ items: [{ media: 'one' }], ...given }), 'hall').music).toBeUndefined();
});

test('a program that is sent has the sounds it needs, and where pictures have their focus', () => {
  const plan = planOf({ items: [{ media: 'two' }], music: MUSIC, sounds: [{ media: 'waves' }] });
  const { screens, programs } = orThrow(compileEdition(plan));
  const document = JSON.parse(programs.get(screens.get('hall') ?? '') ?? '') as { assets: object };
  expect(document.assets).toEqual({
    two: { kind: 'image', sha256: 'a'.repeat(64), bytes: 1, type: 'image/png', width: 2, height: 1, focus: [0.2, 0.9] },
    waves: { kind: 'sound', sha256: 'a'.repeat(64), bytes: 1, type: 'audio/mp4' },
  });
});

test('what is heard is part of what changes: another sound touches the screens that hear it, and is a difference', () => {
  const given = { items: [{ media: 'one' }], music: MUSIC };
  const before = planOf({ ...given, sounds: [{ media: 'waves' }] });
  const after = sharing(before, planOf({ ...given, sounds: [{ media: 'gulls' }] }));
  expect([...touchedScreens(before, after)]).toEqual(['hall']);
  expect(diffPlans(before, after, ...DAY)).toMatchObject([{ screens: ['hall'] }]);
  const louder = sharing(before, planOf({ ...given, sounds: [{ media: 'waves' }], music: { ...MUSIC, volume: 1 } }));
  expect(diffPlans(before, louder, ...DAY)).toMatchObject([{ screens: ['hall'] }]);
});
