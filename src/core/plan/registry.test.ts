import { describeWhen } from '../when';
import { linksOf } from './references';
import type { KINDS } from './kinds';
import { ALL_KINDS, isKind, kindOf, referencesOf } from './registry';
import { changeSentences, conflictSentence, namesIn } from './sentences';
import { patchOf } from './patch';
import { emptyPlan, type Plan } from './schema';
import { withEntryIds } from './entries';

describe('what each kind refers to is read off its schema', () => {
  const paths = (kind: keyof typeof KINDS) =>
    referencesOf(kind).map(({ path, kind: target }) => `${path.join('/')} → ${target}`);

  /** A content may name each kind but an input, which is no object of the plan. */
  const contents = (at: string) => ['media', 'playlist', 'layout', 'bulletin'].map((kind) => `${at}/${kind} → ${kind}`);

  test('as the plan format says', () => {
    expect(paths('network')).toEqual(contents('backdrop'));
    expect(paths('screen')).toEqual([
      'site → site',
      'profile → profile',
      ...contents('backdrop'),
      'lightsOut/*/only/* → calendar',
      'lightsOut/*/not/* → calendar',
      'lightsOut/*/any/*/only/* → calendar',
      'lightsOut/*/any/*/not/* → calendar',
    ]);
    expect(paths('playlist')).toEqual([
      'music/playlist → playlist',
      ...contents('items/*'),
      'items/*/when/only/* → calendar',
      'items/*/when/not/* → calendar',
      'items/*/when/any/*/only/* → calendar',
      'items/*/when/any/*/not/* → calendar',
    ]);
    expect(paths('booking')).toEqual([
      ...contents('content'),
      'cue → cue',
      'when/only/* → calendar',
      'when/not/* → calendar',
      'when/any/*/only/* → calendar',
      'when/any/*/not/* → calendar',
    ]);
    expect(paths('layout')).toEqual([
      ...contents('zones/*/content'),
      'zones/*/when/only/* → calendar',
      'zones/*/when/not/* → calendar',
      'zones/*/when/any/*/only/* → calendar',
      'zones/*/when/any/*/not/* → calendar',
      'zones/*/touch/cue → cue',
    ]);
    expect(paths('board')).toEqual(['buttons/*/cue → cue', 'buttons/*/picture → media']);
    expect(paths('calendar')).toEqual([]);
  });

  test('each names a kind that there is', () => {
    for (const kind of ALL_KINDS) for (const { kind: target } of referencesOf(kind)) expect(isKind(target)).toBe(true);
  });

  test('documents that are not well-formed are read as far as they go', () => {
    const odd = {
      items: [null, 7, { media: 3 }, { media: 'flag', when: { only: 'storm' } }, { when: { not: ['a'] } }],
    };
    expect(linksOf(odd, referencesOf('playlist'))).toEqual([
      { path: ['items', 3, 'media'], kind: 'media', id: 'flag' },
      { path: ['items', 4, 'when', 'not', 0], kind: 'calendar', id: 'a' },
    ]);
  });
});

test('every field of every kind has words, and no words are for a field that is not there', () => {
  for (const kind of ALL_KINDS) {
    const { shape } = kindOf(kind).schema;
    const fields = Object.keys(shape).filter((field) => field !== 'id');
    expect(Object.keys(kindOf(kind).fields).sort()).toEqual(fields.sort());
  }
});

describe('sentences', () => {
  const plan: Plan = {
    ...emptyPlan('Line'),
    calendars: [{ id: 'storm', name: 'Storm timetable', dates: [] }],
    sites: [{ id: 'quay', name: 'Sillarvik Quay', timeZone: 'Europe/Oslo' }],
    playlists: [
      { id: 'crew', name: 'Crew notices', items: [] },
      { id: 'offers', name: 'Offers', items: [] },
    ],
    media: [
      { id: 'drill', name: 'Boat drill', kind: 'image', width: 1, height: 1, bytes: 1, added: '2026-01-01T00:00:00Z' },
    ],
  };
  const names = namesIn(plan);
  const booking = {
    id: 'b',
    name: 'Morning sailings',
    content: { playlist: 'crew' },
    where: 'hall',
    priority: 3,
    created: '2026-01-01T00:00:00Z',
    when: { windows: [['06:00', '10:00']] },
  };

  test('of fields, each with what it was', () => {
    const next = {
      ...booking,
      content: { media: 'drill', durationMs: 90_000 },
      priority: 4,
      onHold: true,
      when: { windows: [['05:30', '10:00']], not: ['storm'] },
    };
    expect(changeSentences('booking', booking, next, names)).toEqual([
      'what “Boat drill” for 1 min 30 s, was “Crew notices”',
      'when daily 05:30–10:00, not on Storm timetable, was daily 06:00–10:00',
      'priority 4, was 3',
      'on hold',
    ]);
    expect(describeWhen({ not: ['storm'] })).toContain('not on storm');
  });

  test('of items: put in, taken out, moved, changed', () => {
    const items = withEntryIds([{ media: 'drill', durationMs: 10_000 }, { playlist: 'offers' }, { collect: 'tide' }]);
    const [drill, offers, tide] = items;
    const list = (...next: object[]) => ({ id: 'p', name: 'P', items: next });
    const said = (...next: object[]) => changeSentences('playlist', list(...items), list(...next), names);
    expect(said({ ...drill, durationMs: 20_000 }, offers as object, tide as object)).toEqual([
      '“Boat drill”: duration 20 s, was 10 s',
    ]);
    expect(said(drill as object, tide as object)).toEqual(['“Offers” removed']);
    expect(said(offers as object, tide as object, drill as object)).toEqual(['“Boat drill” moved']);
    expect(said(...items, { collect: 'poster' })).toEqual(['“all poster” added']);
  });

  test('of opening hours, a time zone and a site', () => {
    const site = { id: 'quay', name: 'Quay', timeZone: 'Europe/Oslo' };
    const hours = { weekly: { MO: [['05:30', '22:00']], TU: [['05:30', '22:00']] }, dates: { '2026-12-25': [] } };
    expect(changeSentences('site', site, { ...site, hours, timeZone: 'Atlantic/Faroe' }, names)).toEqual([
      'time zone Atlantic/Faroe, was Europe/Oslo',
      'opening hours MO TU 05:30–22:00, WE TH FR SA SU closed, 2026-12-25 closed',
    ]);
  });

  test('of a conflict, with both values', () => {
    const conflict = { field: 'content', theirs: { playlist: 'crew' }, mine: { playlist: 'offers' } };
    expect(conflictSentence('booking', conflict, booking, names, 'Ida Lunde')).toBe(
      'Ida Lunde changed “what” to “Crew notices” while you were editing. Yours is “Offers”.',
    );
  });

  test('nothing is said where nothing differs', () => {
    expect(changeSentences('booking', booking, { ...booking, onHold: undefined }, names)).toEqual([]);
    expect(patchOf('booking', 'b', booking, { ...booking, onHold: undefined })).toBeNull();
  });
});
