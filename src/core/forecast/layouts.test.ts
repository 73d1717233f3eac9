import { compileEdition, diffPlans, type ProgramDocument } from '../edition';
import { touchedScreens } from '../edition/touched';
import { parseInstant } from '../instant';
import { readPlan, sharing, type Plan, type Site } from '../plan';
import { localOccasions } from '../booking';
import { writeCalendar } from '../formats/icalendar';
import { parseDate, startOfDate, type LocalDate } from '../when';
import { orThrow } from '../refusal';
import { readRows } from '../tests/rows';
import { smallPlan, smallPlanFile, type Parts } from '../tests/small-plan';
import {
  airTime,
  forecast,
  forecastDocument,
  glances,
  neverShown,
  nextShown,
  NetworkForecast,
  outcomeRange,
  outcomeRows,
  screenProgram,
  why,
  type WholePlay,
} from '.';

interface Case {
  readonly request: { plan: unknown; screen: string; from: string; to: string; firings: never[] };
  readonly answer: unknown;
}

const CASES = readRows<Case>('forecast/grown-cases.jsonl').map((one, i) => [i + 1, one] as const);
const at = (text: string) => parseInstant(text) as number;
const [FROM, TO] = [at('2026-12-01T10:00:00Z'), at('2026-12-01T11:00:00Z')];
const minute = (count: number) => FROM + count * 60_000;

/** Layouts, bulletins, inputs and cues: answers by a second implementation of the rules, which shares no code with this one. */
test.each(CASES)('worked forecast %i', (_number, { request, answer }) => {
  const program = screenProgram(orThrow(readPlan(request.plan)), request.screen, request.firings);
  const result = forecast(program, at(request.from), at(request.to), { plays: true });
  expect(forecastDocument(request.screen, result, true)).toEqual(answer);
});

/** Plays as they are seen from a later instant on. */
const after = (plays: readonly WholePlay[], from: number): WholePlay[] =>
  plays
    .filter((play) => play.to > from)
    .map((play) => ({
      ...{ ...play, from: Math.max(play.from, from) },
      ...(play.zones ? { zones: play.zones.map((zone) => ({ ...zone, plays: after(zone.plays, from) })) } : {}),
    }));

test.each(CASES)('worked forecast %i is the same from any instant on', (_number, { request }) => {
  const program = screenProgram(orThrow(readPlan(request.plan)), request.screen, request.firings);
  const [from, to] = [at(request.from), at(request.to)];
  const whole = forecast(program, from, to, { plays: true }).plays;
  for (const part of [0.13, 0.5, 0.91]) {
    const later = from + Math.floor((to - from) * part);
    expect(forecast(program, later, to, { plays: true }).plays).toEqual(after(whole, later));
  }
});

/** A hall that shows a board with a loop of two pictures beside one, and what is booked besides. */
const PARTS = {
  screens: [{ id: 'hall', tags: ['hall'] }, 'gate'],
  media: ['a', 'b', 'side', 'alone'],
  playlists: [{ id: 'loop', items: ['a', 'b'] }],
  layouts: [
    {
      id: 'board',
      zones: [
        { id: 'main', content: { playlist: 'loop' } },
        { id: 'side', x: 960, content: { media: 'side' } },
      ],
    },
    { id: 'line', zones: [{ id: 'foot', y: 540, content: { media: 'side' } }] },
  ],
  bookings: [{ id: 'board', content: { layout: 'board' }, where: 'hall' }],
} satisfies Parts;

const withZone = (change: object): Parts => ({
  ...PARTS,
  layouts: PARTS.layouts.map((layout) =>
    layout.id === 'board'
      ? { ...layout, zones: layout.zones.map((zone) => (zone.id === 'side' ? { ...zone, ...change } : zone)) }
      : layout,
  ),
});

test('a file counts as on air while a zone shows it, and once where two do', () => {
  const plan = smallPlan(withZone({ content: { playlist: 'loop' } }));
  expect(airTime(plan, { kind: 'media', id: 'a' }, FROM, TO)).toMatchObject([{ screen: 'hall', ms: 30 * 60_000 }]);
  expect(airTime(plan, { kind: 'playlist', id: 'loop' }, FROM, TO)).toMatchObject([{ ms: 60 * 60_000 }]);
  expect(airTime(plan, { kind: 'layout', id: 'board' }, FROM, TO)).toMatchObject([{ ms: 60 * 60_000, plays: 1 }]);
  const [next] = nextShown(new NetworkForecast(FROM, TO).outcomes(plan), 'b', FROM);
  expect(next).toMatchObject({ screens: ['hall'], from: FROM + 10_000, to: FROM + 20_000, id: 'board' });
});

test('a glance has the picture of each zone, and holds until the first of them changes', () => {
  const plan = smallPlan({ ...withZone({ content: { bulletin: 'tide' } }), bulletins: ['tide'] });
  const [hall] = glances(plan, FROM + 13_000, new Set(['hall']));
  expect(hall).toMatchObject({
    ...{ media: null, until: FROM + 20_000 },
    board: {
      kind: 'layout',
      id: 'board',
      name: 'board',
      parts: [
        { x: 0, media: 'b' },
        { x: 960, name: 'Hello' },
      ],
    },
  });
  const alone = smallPlan({ ...PARTS, bookings: [{ content: { input: 'hdmi-1' } }] });
  expect(glances(alone, FROM)[0]?.board).toMatchObject({ kind: 'input', name: 'hdmi-1', parts: [{ name: 'hdmi-1' }] });
});

test('what no zone shows is told, and why', () => {
  expect(neverShown(smallPlan(PARTS), FROM, TO).map(({ subject, because }) => [subject.id, because])).toEqual([
    ['line', 'not used'],
    ['alone', 'not used'],
  ]);
  const bare = smallPlan({ ...PARTS, layouts: [{ id: 'board', zones: [{ id: 'main' }] }] });
  expect(neverShown(bare, FROM, TO)[0]).toMatchObject({ subject: { id: 'board' }, because: 'nothing to show' });
});

test('what changes in a zone, or in what it shows, is a change of the screens that see it, and of no others', () => {
  const before = smallPlan(PARTS);
  for (const parts of [
    withZone({ content: { media: 'alone' } }),
    withZone({ x: 480 }),
    { ...PARTS, playlists: [{ id: 'loop', items: ['b', 'a'] }] },
  ]) {
    const plan = sharing(before, smallPlan(parts));
    expect([...touchedScreens(before, plan)]).toEqual(['hall']);
    expect(diffPlans(before, plan, FROM, TO)).toMatchObject([{ screens: ['hall'] }]);
  }
});

const compiled = (parts: Parts) => {
  const media = (parts.media ?? []).map((id) => ({ id, sha256: '0'.repeat(64), type: 'image/png' }));
  const { programs, screens } = orThrow(compileEdition(smallPlan({ ...parts, media })));
  return JSON.parse(programs.get(screens.get('hall') ?? '') ?? '') as ProgramDocument;
};

test('a program has its layouts with the zones of its screen, what these show and the files they need, and says nothing of firings', () => {
  const program = compiled(withZone({ where: 'not hall' }));
  expect(Object.keys(program.assets)).toEqual(['a', 'b']);
  expect(program.layouts?.board?.zones.map(({ id }) => id)).toEqual(['main']);
  expect(program.firings).toBeUndefined();
  expect(compiled({ ...PARTS, bookings: [] }).layouts).toBeUndefined();
});

test('a zone says how what it shows looks where the item doesn’t, and only the one that is heard is', () => {
  const loud = [
    { media: 'a', volume: 1 },
    { media: 'b', volume: 1, fit: 'whole' },
  ];
  const zone = { content: { playlist: 'loop' }, fit: 'fill', transition: { kind: 'fade', ms: 500 }, sound: true };
  const { loops, layouts } = compiled({ ...withZone(zone), playlists: [{ id: 'loop', items: loud }] });
  const of = (id: string) => loops[layouts?.board?.zones.find((one) => one.id === id)?.loop ?? -1];
  expect(of('side')).toMatchObject([
    { media: 'a', fit: 'fill', transition: { kind: 'fade', ms: 500 }, volume: 1 },
    { media: 'b', transition: { kind: 'fade', ms: 500 }, volume: 1 },
  ]);
  expect(of('side')?.[1]?.fit).toBeUndefined();
  expect(of('main')?.map(({ volume, fit }) => [volume, fit])).toEqual([
    [undefined, undefined],
    [undefined, undefined],
  ]);
});

const overlaid = (overlay: object, ...others: object[]) => {
  const line = { id: 'line', content: { layout: 'line' }, overlay, when: { windows: [['10:10', '10:40']] } };
  const plan = smallPlan({ ...PARTS, bookings: [...PARTS.bookings, line, ...others] });
  const { overlays = [], segments } = forecast(screenProgram(plan, 'hall'), FROM, TO);
  return {
    segments,
    times: overlays.map(({ id, from, to }) =>
      [id, from - FROM, to - FROM].map((one) => (typeof one === 'number' ? one / 60_000 : one)),
    ),
  };
};

test('an overlay is drawn over what plays and never competes; a takeover stops it, unless it says otherwise', () => {
  const alarm = {
    id: 'alarm',
    takeover: true,
    priority: 5,
    content: { media: 'alone' },
    when: { windows: [['10:20', '10:30']] },
  };
  expect(overlaid({}).segments).toHaveLength(1);
  expect(overlaid({}).times).toEqual([['line', 10, 40]]);
  expect(overlaid({}, alarm).times).toEqual([
    ['line', 10, 20],
    ['line', 30, 40],
  ]);
  expect(overlaid({ overTakeovers: true }, alarm).times).toEqual([['line', 10, 40]]);
  const badge = {
    id: 'badge',
    content: { layout: 'line' },
    overlay: {},
    priority: 5,
    when: { windows: [['10:10', '10:20']] },
  };
  // What goes ahead lies above, so it is drawn last.
  expect(overlaid({}, badge).times).toEqual([
    ['line', 10, 40],
    ['badge', 10, 20],
  ]);
});

test('what is above counts as on air, as shown and as a change, and why says it', () => {
  const line = { id: 'line', content: { layout: 'line' }, overlay: {}, when: { windows: [['10:10', '10:40']] } };
  const before = smallPlan({ ...PARTS, bookings: PARTS.bookings });
  const plan = sharing(before, smallPlan({ ...PARTS, bookings: [...PARTS.bookings, line] }));
  expect(airTime(plan, { kind: 'booking', id: 'line' }, FROM, TO)).toMatchObject([
    { screen: 'hall', ms: 30 * 60_000, first: minute(10) },
    { screen: 'gate', ms: 30 * 60_000 },
  ]);
  expect(airTime(plan, { kind: 'layout', id: 'line' }, FROM, TO)).toMatchObject([{ ms: 30 * 60_000 }, {}]);
  // At the hall a zone shows it all the time.
  expect(airTime(plan, { kind: 'media', id: 'side' }, FROM, TO)).toMatchObject([
    { ms: 60 * 60_000 },
    { ms: 30 * 60_000, first: minute(10) },
  ]);
  expect(neverShown(plan, FROM, TO).map(({ subject }) => subject.id)).toEqual(['alone']);
  const [group] = diffPlans(before, plan, FROM, TO);
  expect(group?.differences.map(({ from, to }) => [from, to])).toEqual([[minute(10), minute(40)]]);
  const { over, sentence } = why(plan, 'hall', minute(15));
  expect(over).toEqual([{ id: 'line', name: 'line', layout: 'line', until: minute(40) }]);
  expect(sentence).toContain('; line is drawn over it until 10:40');
});

test('a glance has what is above, and holds until that changes; what shows has its times, joined', () => {
  const line = { id: 'line', content: { layout: 'line' }, overlay: {}, when: { windows: [['10:10', '10:40']] } };
  const plan = smallPlan({ ...PARTS, bookings: [{ content: { media: 'alone', durationMs: 7000 } }, line] });
  const glance = (ms: number) => glances(plan, FROM + ms, new Set(['hall']))[0];
  const ten = 10 * 60_000;
  expect(glance(0)?.above).toBeUndefined();
  // It is above in the middle of a turn below.
  expect(glance(ten - 2000)?.until).toBe(minute(10));
  expect(glance(ten)).toMatchObject({
    media: 'alone',
    above: [{ kind: 'layout', id: 'line', parts: [{ media: 'side' }] }],
  });
  expect(glance(4 * ten)?.above).toBeUndefined();
  const [first] = [parseDate('2026-12-01') as LocalDate];
  const rows = outcomeRows(new NetworkForecast(...outcomeRange(first, first)).outcomes(plan), first, first);
  expect(rows).toHaveLength(1);
  const day = startOfDate(first);
  expect(rows[0]?.above.map(({ id, from, to }) => [id, (from - day) / 60_000, (to - day) / 60_000])).toEqual([
    ['line', 610, 640],
  ]);
});

test('an overlay may be written by its layout alone', () => {
  const { content: _content, ...line } = { id: 'line', content: 0, overlay: { layout: 'line' } };
  const file = smallPlanFile(PARTS) as { bookings: object[] };
  const booking = { ...file.bookings[0], ...line, name: 'Line', content: undefined };
  const read = orThrow(readPlan({ ...file, bookings: [booking] }));
  expect(read.bookings).toMatchObject([{ content: { layout: 'line' }, overlay: {} }]);
});

test('a cue’s booking shows when it is fired, where both selectors match, as long as it says, and no longer than until it is ended', () => {
  const plan = smallPlan({
    ...PARTS,
    cues: ['song', 'other'],
    bookings: [...PARTS.bookings, { id: 'song', cue: 'song', forMs: 60_000, content: { media: 'alone' } }],
  });
  const shown = (firings: object[], screen = 'hall') =>
    forecast(screenProgram(plan, screen, firings as never[]), FROM, TO)
      .segments.filter(({ id }) => id === 'song')
      .map(({ from, to, since }) => [from, to, since].map((one) => ((one ?? 0) - FROM) / 60_000));
  const fire = (count: number, more: object = {}) => ({
    cue: 'song',
    at: new Date(minute(count)).toISOString(),
    ...more,
  });
  expect(shown([])).toEqual([]);
  expect(shown([fire(10), fire(20)])).toEqual([
    [10, 11, 10],
    [20, 21, 20],
  ]);
  expect(shown([fire(10, { where: 'hall' })], 'gate')).toEqual([]);
  expect(shown([fire(10), fire(10.5, { end: true })])).toEqual([[10, 10.5, 10]]);
  expect(shown([fire(10), fire(10.5)])).toEqual([
    [10, 10.5, 10],
    [10.5, 11.5, 10.5],
  ]);
  expect(shown([{ ...fire(10), cue: 'other' }])).toEqual([]);
  expect(neverShown(plan, FROM, TO)[0]).toMatchObject({ subject: { id: 'song' }, because: 'waits for its cue' });
  expect(why(plan, 'hall', minute(10.5), [fire(10)] as never[]).sentence).toMatch(
    /^song until 10:11, since 10:10, because the cue “song” was fired; /,
  );
});

test('a booking that waits for its cue has no time on the plan, nor in calendar files', () => {
  const plan = smallPlan({
    ...PARTS,
    cues: ['song'],
    bookings: [{ id: 'song', cue: 'song', when: { windows: [['10:00', '12:00']] } }],
  });
  const day = parseDate('2026-12-01') as LocalDate;
  expect(localOccasions(plan, plan.bookings, plan.sites[0] as Site, day, day)).toEqual([]);
  const written = (bookings: Plan['bookings']) => writeCalendar(plan, bookings, { name: 'N', from: day, stamp: FROM });
  expect(written(plan.bookings)).not.toContain('BEGIN:VEVENT');
  expect(written(plan.bookings.map(({ cue: _cue, ...one }) => one))).toContain('BEGIN:VEVENT');
});

test.each([
  ['a layout in a zone', withZone({ content: { layout: 'line' } }), '/layouts/0/zones/1/content'],
  [
    'a playlist in a zone that reaches a layout',
    {
      ...withZone({ content: { playlist: 'deep' } }),
      playlists: [
        ...PARTS.playlists,
        { id: 'in', items: [{ layout: 'line' }] },
        { id: 'deep', items: [{ playlist: 'in' }] },
      ],
    },
    '/layouts/0/zones/1/content/playlist',
  ],
  ['a zone beyond its layout', withZone({ x: 961 }), '/layouts/0/zones/1/width'],
  [
    'two zones that are heard',
    {
      ...PARTS,
      layouts: [
        {
          id: 'board',
          zones: [
            { id: 'a', sound: true },
            { id: 'b', sound: true },
          ],
        },
      ],
    },
    '/layouts/0/zones/1/sound',
  ],
  ['a touch that fires nothing', withZone({ touch: { cue: 'gone' } }), '/layouts/0/zones/1/touch/cue'],
  [
    'a weave that waits for a cue',
    { ...PARTS, cues: ['song'], bookings: [{ cue: 'song', weave: { share: 0.1 } }] },
    '/bookings/0/cue',
  ],
  ['a time without a cue', { ...PARTS, bookings: [{ forMs: 5000 }] }, '/bookings/0/forMs'],
  ['an overlay that is no layout', { ...PARTS, bookings: [{ overlay: {} }] }, '/bookings/0/content'],
])('%s is refused at its place', (_what, parts: Parts, path) => {
  const read = readPlan(smallPlanFile(parts));
  expect(read.ok ? [] : read.problems.map((one) => one.path)).toContain(path);
});
