import { parseInstant } from '../instant';
import { orThrow } from '../refusal';
import { readPlan } from '../plan';
import { findings, type Finding } from '.';

/** What findings say, word for word, and where the line is between what is told and what is not. */

const at = (text: string) => parseInstant(text) as number;
const [from, to] = [at('2026-12-01T00:00:00Z'), at('2026-12-08T00:00:00Z')];

/** Halls a and b with opening hours of 06 to 22, a deck without; a backdrop; and what the test adds. */
function told(more: { network?: object; screens?: Record<string, object>; playlists?: object[]; bookings?: object[] }) {
  const hours = {
    weekly: Object.fromEntries(['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'].map((day) => [day, [['06:00', '22:00']]])),
  };
  const plan = orThrow(
    readPlan({
      format: 'lanternpost/plan',
      version: 1,
      network: { name: 'N', backdrop: { media: 'flag' }, ...more.network },
      sites: [
        { id: 'quay', name: 'Quay', timeZone: 'UTC', hours },
        { id: 'sea', name: 'Sea', timeZone: 'UTC' },
      ],
      screens: ['a', 'b', 'deck'].map((id) => ({
        ...{ id, name: id, site: id === 'deck' ? 'sea' : 'quay', width: 2, height: 1 },
        ...{ tags: id === 'deck' ? ['deck'] : ['hall', id] },
        ...more.screens?.[id],
      })),
      media: ['flag', 'card', 'film', 'gone'].map((id) => ({
        ...{ id, name: id.toUpperCase(), kind: 'image', width: 1, height: 1, bytes: 1, added: '2026-01-01T00:00:00Z' },
        ...(id === 'gone' ? { when: { to: '2026-01-01' } } : {}),
      })),
      playlists: more.playlists ?? [],
      bookings: (more.bookings ?? []).map((one, i) => ({
        ...{ name: (one as { id: string }).id.toUpperCase(), content: { media: 'card' }, where: 'hall' },
        ...{ created: `2026-01-01T00:0${i}:00Z` },
        ...one,
      })),
    }),
  );
  return findings(plan, from, to);
}

const on = (begin: string, end: string) => ({ windows: [[begin, end]] });
/** A finding with its fixes' labels in place of what they change. */
const whole = ({ fixes, times: _, ...rest }: Finding) => ({ ...rest, fixes: fixes.map((fix) => fix.label) });
const kinds = (list: readonly Finding[]) => list.map((one) => `${one.kind} ${one.about.join(' ')}`.trim());
const hour = (day: number, time: string) => at(`2026-12-0${day}T${time}:00Z`);

describe('clashes', () => {
  const one = { id: 'one', when: on('06:00', '10:00') };
  const two = { id: 'two', when: on('08:00', '12:00') };

  test('of one priority at one time are told once, with who shows and why', () => {
    const advice = 'Give the more important one a higher priority, or give them different times or screens.';
    expect(told({ bookings: [one, two] }).map(whole)).toEqual([
      {
        kind: 'clash',
        severity: 'warning',
        about: ['two', 'one'],
        screens: ['a', 'b'],
        span: [hour(1, '08:00'), hour(1, '10:00')],
        sentence: '“TWO” and “ONE” have the same priority at the same time. “TWO” shows, because it begins later.',
        advice,
        fixes: ['“ONE” ahead of “TWO”', '“TWO” ahead of “ONE”'],
      },
    ]);
    const [alike] = told({ bookings: [one, { ...two, when: on('06:00', '09:00') }] });
    expect(alike?.sentence).toBe(
      '“TWO” and “ONE” have the same priority at the same time. “TWO” shows, because it was made later.',
    );
  });

  test('are none of another priority or class, one after the other, elsewhere, or with nothing to show', () => {
    expect(kinds(told({ bookings: [one, { ...two, priority: 4 }] }))).toEqual([]);
    expect(kinds(told({ bookings: [one, { ...two, takeover: true }] }))).toEqual([]);
    expect(kinds(told({ bookings: [one, { ...two, when: on('10:00', '12:00') }] }))).toEqual([]);
    expect(
      kinds(
        told({
          bookings: [
            { ...one, where: 'a' },
            { ...two, where: 'b' },
          ],
        }),
      ),
    ).toEqual([]);
    expect(kinds(told({ bookings: [one, { ...two, content: { media: 'gone' } }] }))).toEqual([]);
    const backdrop = { screens: { a: { backdrop: { media: 'film' } }, b: { backdrop: { media: 'film' } } } };
    expect(kinds(told({ ...backdrop, bookings: [one] }))).toEqual([]);
  });

  test('of takeovers are clashes too; behind a third that is ahead of both there is none', () => {
    const over = [one, two].map((each) => ({ ...each, takeover: true }));
    expect(kinds(told({ bookings: over }))).toEqual(['clash two one']);
    const third = { id: 'third', priority: 5, when: on('08:00', '10:00') };
    expect(kinds(told({ bookings: [one, two, third] }))).toEqual([]);
  });

  test('on some screens only name those', () => {
    expect(told({ bookings: [one, { ...two, where: 'b' }] })[0]?.screens).toEqual(['b']);
  });
});

test('the gravest come first, and of those the earliest', () => {
  const list = told({
    bookings: [
      { id: 'late', when: { from: '2026-12-05', ...on('08:00', '12:00') } },
      { id: 'later', when: { from: '2026-12-05', ...on('08:00', '09:00') } },
      { id: 'early', where: 'deck', when: { to: '2026-12-03', ...on('08:00', '12:00') } },
      { id: 'earlier', where: 'deck', when: { to: '2026-12-03', ...on('09:00', '12:00') } },
      { id: 'over', when: { to: '2026-11-01' } },
      { id: 'nowhere', where: 'roof' },
    ],
  });
  expect(kinds(list)).toEqual(['no screen nowhere', 'clash earlier early', 'clash later late', 'expired over']);
  expect(list.map((one) => one.severity)).toEqual(['error', 'warning', 'warning', 'notice']);
});

test('gaps are told with the times that they last, each once for all its screens', () => {
  const list = told({
    network: { backdrop: undefined },
    bookings: [{ id: 'day', where: 'all', when: on('00:00', '23:00') }],
  });
  expect(list).toHaveLength(7);
  expect(list.map(whole)[0]).toEqual({
    kind: 'gap',
    severity: 'error',
    about: [],
    screens: ['a', 'b', 'deck'],
    span: [hour(1, '23:00'), hour(2, '00:00')],
    sentence: 'Nothing is booked, and no backdrop has anything to show. The screen shows its name and the time.',
    advice: 'Give the screen, its site or the network a backdrop that always has something to show.',
    fixes: [],
  });
});

test('what reaches no screen says what it asks for', () => {
  expect(told({ bookings: [{ id: 'x', where: 'hall and deck' }] }).map(whole)).toEqual([
    {
      kind: 'no screen',
      severity: 'error',
      about: ['x'],
      screens: [],
      span: null,
      sentence: '“X” reaches no screen, because nothing matches “hall and deck”.',
      advice: 'Change where it shows, or give screens these tags.',
      fixes: ['Put “X” on hold', 'Delete “X”'],
    },
  ]);
});

test('screens that the content has nothing for are named, and nothing else is said of the others', () => {
  const playlists = [{ id: 'p', name: 'P', items: [{ media: 'card', where: 'a' }] }];
  expect(told({ playlists, bookings: [{ id: 'x', where: 'all', content: { playlist: 'p' } }] }).map(whole)).toEqual([
    {
      kind: 'nothing for this screen',
      severity: 'warning',
      about: ['x'],
      screens: ['b', 'deck'],
      span: null,
      sentence: '“X” is booked on screens for which its content has no item.',
      advice: 'Add an item that is for these screens, or leave them out of where it shows.',
      fixes: ['Leave these screens out'],
    },
  ]);
  const nobody = [{ id: 'p', name: 'P', items: [{ media: 'card', where: 'deck' }] }];
  expect(kinds(told({ playlists: nobody, bookings: [{ id: 'x', content: { playlist: 'p' } }] }))).toEqual([
    'nothing for this screen x',
  ]);
});

test('what is wholly in hours in which displays are off is told of those screens; what shows elsewhere, or wakes, is fine', () => {
  const screens = { a: { lightsOut: [on('22:00', '05:00')] } };
  const late = { id: 'x', when: on('23:00', '23:30') };
  expect(told({ screens, bookings: [late] }).map(whole)).toEqual([
    {
      kind: 'lights-out hides',
      severity: 'warning',
      about: ['x'],
      screens: ['a'],
      span: [hour(1, '23:00'), hour(1, '23:30')],
      sentence: '“X” is booked only in hours when these displays are off.',
      advice: 'Change its hours or the lights-out hours; only a takeover can switch a display on.',
      fixes: ['Put “X” on hold'],
    },
  ]);
  expect(kinds(told({ screens, bookings: [{ ...late, takeover: true, wake: true }] }))).toEqual([]);
  expect(kinds(told({ screens, bookings: [{ ...late, when: on('21:30', '23:30') }] }))).toEqual([]);
  const partly = {
    id: 'x',
    when: {
      windows: [
        ['21:00', '21:10'],
        ['23:00', '23:30'],
      ],
    },
  };
  expect(kinds(told({ screens, bookings: [partly] }))).toEqual([]);
});

describe('what never shows', () => {
  const own = { id: 'x', priority: 2, when: on('08:00', '10:00') };
  const ahead = { id: 'y', when: on('07:00', '11:00') };

  test('says who is ahead of it, and how to let it win', () => {
    expect(told({ bookings: [own, ahead] }).map(whole)).toEqual([
      {
        kind: 'hidden',
        severity: 'warning',
        about: ['x', 'y'],
        screens: ['a', 'b'],
        span: [hour(1, '08:00'), hour(1, '10:00')],
        sentence: '“X” never shows, because “Y” goes ahead of it all the time.',
        advice: 'Raise its priority, give it times of its own, or delete it.',
        fixes: ['“X” ahead of “Y”', 'Put “X” on hold', 'Delete “X”'],
      },
    ]);
  });

  test('names the one that is ahead longest; behind a takeover a priority is no help', () => {
    const most = { id: 'z', priority: 4, when: on('08:30', '10:00') };
    const [first] = told({ bookings: [own, { ...ahead, when: on('07:00', '09:00') }, most] });
    expect(first?.about).toEqual(['x', 'z']);
    const [second] = told({ bookings: [own, { ...ahead, takeover: true }] });
    expect(second && whole(second).fixes).toEqual(['Put “X” on hold', 'Delete “X”']);
    const both = told({
      bookings: [
        { ...own, takeover: true },
        { ...ahead, takeover: true },
      ],
    });
    expect(both.map((one) => whole(one).fixes[0])).toEqual(['“X” ahead of “Y”']);
  });

  test('is not told where it shows on one of its screens, or at one of its times', () => {
    expect(kinds(told({ bookings: [own, { ...ahead, where: 'a' }] }))).toEqual([]);
    expect(kinds(told({ bookings: [own, { ...ahead, when: { ...on('07:00', '11:00'), to: '2026-12-04' } }] }))).toEqual(
      [],
    );
  });

  test('is told beside hours in which other displays are off, each of its own screens', () => {
    const screens = { b: { lightsOut: [on('06:00', '12:00')] } };
    const list = told({ screens, bookings: [own, ahead, { id: 'w', where: 'b', when: on('12:00', '13:00') }] });
    expect(list.filter((one) => one.about[0] === 'x').map((one) => [one.kind, one.screens])).toEqual([
      ['lights-out hides', ['b']],
      ['hidden', ['a']],
    ]);
  });

  test('behind lights-out for most of its time, it names no booking', () => {
    const screens = { a: { lightsOut: [on('08:00', '09:50')] }, b: { lightsOut: [on('08:00', '09:50')] } };
    const list = told({ screens, bookings: [own, { ...ahead, when: on('09:00', '11:00') }] });
    const [hidden] = list.filter((one) => one.kind === 'hidden');
    expect(hidden?.about).toEqual(['x']);
    expect(hidden?.sentence).toBe('“X” never shows, because lights-out goes ahead of it all the time.');
    expect(hidden && whole(hidden).fixes).toEqual(['Put “X” on hold', 'Delete “X”']);
  });

  test('has nothing to show in its time: of that the gap tells, not this', () => {
    expect(kinds(told({ bookings: [{ ...own, content: { media: 'gone' } }] }))).toEqual([]);
  });
});

describe('what has no time in the span', () => {
  const lost = (when: object) => told({ bookings: [{ id: 'x', when }] }).map(whole);

  test('is over, with its fix', () => {
    expect(lost({ to: '2026-11-20' })).toEqual([
      {
        kind: 'expired',
        severity: 'notice',
        about: ['x'],
        screens: [],
        span: null,
        sentence: '“X” is over (until 20 Nov 2026).',
        advice: 'Delete it, or give it new dates.',
        fixes: ['Delete “X”'],
      },
    ]);
  });

  test('has no time at all where it had none in the last year either', () => {
    expect(lost({ to: '2025-11-20' })[0]?.sentence).toBe('“X” has no time at all (until 20 Nov 2025).');
    expect(lost({ windows: [] })[0]?.kind).toBe('expired');
  });

  test('shows later: soon, or by a date that is written years ahead', () => {
    const later = {
      kind: 'not yet begun',
      severity: 'notice',
      about: ['x'],
      screens: [],
      span: null,
      sentence: '“X” doesn’t show in these days, but later (from 1 Mar 2027).',
      advice: 'If this is on purpose, do nothing. Otherwise change its dates.',
      fixes: [],
    };
    expect(lost({ from: '2027-03-01' })).toEqual([later]);
    expect(lost({ from: '2026-12-08' })[0]?.kind).toBe('not yet begun');
    expect(lost({ from: '2030-03-01' })[0]?.kind).toBe('not yet begun');
    expect(lost({ to: '2026-11-20', also: ['2031-06-01'] })[0]?.kind).toBe('not yet begun');
    expect(lost({ to: '2026-11-20', also: ['2026-11-25'] })[0]?.kind).toBe('expired');
  });
});

describe('items that never come up', () => {
  const playlists = (...items: object[]) => [{ id: 'p', name: 'P', items }];
  const card = { media: 'card', durationMs: 600_000 };
  const short = { id: 'x', content: { playlist: 'p' }, when: on('08:00', '08:10') };

  test('are told with the playlist that can be changed', () => {
    expect(
      told({ playlists: playlists(card, { media: 'film', durationMs: 1000 }), bookings: [short] }).map(whole),
    ).toEqual([
      {
        kind: 'unreached item',
        severity: 'warning',
        about: ['x', 'film'],
        screens: ['a', 'b'],
        span: null,
        sentence: '“FILM” never comes up in “X”, because each of its windows ends before its turn.',
        advice: 'Shorten the loop, lengthen the window, or move the item to the front.',
        fixes: ['Move it to the front of “P”'],
      },
    ]);
  });

  test('are none where a window is as long as the round, where one of them is, or where the item has no time', () => {
    const film = { media: 'film', durationMs: 600_000 };
    const windows = (...list: [string, string][]) => ({ ...short, when: { windows: list } });
    const about = (booking: object, ...items: object[]) =>
      kinds(told({ playlists: playlists(card, ...items), bookings: [booking] }));
    expect(about(windows(['08:00', '08:20']), film)).toEqual([]);
    expect(about(windows(['08:00', '08:10'], ['12:00', '13:00']), film)).toEqual([]);
    expect(about(windows(['08:00', '08:10'], ['12:00', '12:05']), film)).toEqual(['unreached item x film']);
    expect(about(short, { ...film, when: { to: '2026-11-01' } })).toEqual([]);
    expect(about(short, { ...film, when: on('07:00', '09:00') })).toEqual(['unreached item x film']);
    expect(about(short, { ...film, media: 'gone' })).toEqual([]);
    expect(about(windows(['08:00', '08:20'], ['12:00', '12:05']), film)).toEqual([]);
    expect(about(short, film, { media: 'flag', durationMs: 1000 })).toEqual([
      'unreached item x film',
      'unreached item x flag',
    ]);
  });
});

describe('lights-out in opening hours', () => {
  const dark = (begin: string, end: string, ...ids: string[]) => ({
    screens: Object.fromEntries(ids.map((id) => [id, { lightsOut: [on(begin, end)] }])),
  });

  test('is told once for screens of one site with the same hours', () => {
    const list = told(dark('06:00', '22:00', 'a', 'b'));
    expect(list.map(whole)).toEqual([
      {
        kind: 'on and off swapped',
        severity: 'error',
        about: [],
        screens: ['a', 'b'],
        span: [hour(1, '06:00'), hour(1, '22:00')],
        sentence: 'Lights-out covers the site’s opening hours. Its start and end may be swapped.',
        advice: 'Swap the start and the end of the lights-out hours.',
        fixes: ['Swap on and off'],
      },
    ]);
    expect(list[0]?.fixes[0]?.edits.map((one) => one.id)).toEqual(['a', 'b']);
    expect(
      told({ screens: { a: { lightsOut: [on('06:00', '22:00')] }, b: { lightsOut: [on('07:00', '22:00')] } } }),
    ).toHaveLength(2);
  });

  test('of half of them or more is told, of less is not, nor where a site has no hours', () => {
    expect(kinds(told(dark('06:00', '14:00', 'a')))).toEqual(['on and off swapped']);
    expect(kinds(told(dark('06:00', '13:59', 'a')))).toEqual([]);
    expect(kinds(told(dark('22:00', '06:00', 'a')))).toEqual([]);
    expect(kinds(told(dark('06:00', '22:00', 'deck')))).toEqual([]);
  });
});
