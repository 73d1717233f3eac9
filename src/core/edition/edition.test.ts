import fc from 'fast-check';
import { orThrow } from '../refusal';
import { readPlan, samePlan, sharing, type Plan } from '../plan';
import { sha256Hex } from '../sha256';
import { canonicalJson, compileEdition, type ProgramDocument } from '.';
import { touchedScreens } from './touched';
import { runs } from '../tests/runs';
import { readRows } from '../tests/rows';

test('RFC 8785 section 3.2.2 and 3.2.3: the sample object in its canonical form (from memory)', () => {
  const sample = {
    numbers: [Number('333333333.33333329'), 1e30, 4.5, 2e-3, 1e-27],
    string: "\u20ac$\u000F\u000aA'\u0042\u0022\u005c\\\u0022/",
    literals: [null, true, false],
  };
  expect(canonicalJson(sample)).toBe(
    '{"literals":[null,true,false],"numbers":[333333333.3333333,1e+30,4.5,0.002,1e-27],"string":"€$\\u000f\\nA\'B\\"\\\\\\\\\\"/"}',
  );
});

const document = {
  format: 'lanternpost/plan',
  version: 1,
  network: { name: 'N', backdrop: { media: 'flag' } },
  sites: [{ id: 'quay', name: 'Quay', timeZone: 'Europe/Oslo', tags: ['quay'] }],
  screens: ['a', 'b', 'c'].map((id) => ({
    id,
    name: `Screen ${id}`,
    site: 'quay',
    width: 1920,
    height: 1080,
    tags: id === 'c' ? ['staff'] : [],
  })),
  media: ['flag', 'rota'].map((id) => ({
    id,
    name: id,
    kind: 'image',
    width: 10,
    height: 10,
    bytes: 5,
    added: '2026-01-01T00:00:00Z',
    sha256: id === 'flag' ? 'f'.repeat(64) : 'e'.repeat(64),
    type: 'image/png',
  })),
  bookings: [
    {
      id: 'rota',
      name: 'Rota',
      content: { media: 'rota' },
      where: 'staff',
      created: '2026-01-01T00:00:00Z',
      when: { clock: 'Atlantic/Reykjavik' },
    },
  ],
};

function compiled(change: (plan: Plan) => Plan = (plan) => plan) {
  const read = readPlan(document);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return orThrow(compileEdition(change(read.value)));
}

test('screens with equal programs share one, and a program holds what its screen needs and no more', () => {
  const { programs, screens } = compiled();
  expect(screens.get('a')).toBe(screens.get('b'));
  expect(programs.size).toBe(2);
  const [a, c] = ['a', 'c'].map((id) => JSON.parse(programs.get(screens.get(id) ?? '') ?? '') as ProgramDocument);
  expect(Object.keys(a?.assets ?? {})).toEqual(['flag']);
  expect(Object.keys(c?.assets ?? {}).sort()).toEqual(['flag', 'rota']);
  expect(Object.keys(c?.zones ?? {})).toEqual(['Atlantic/Reykjavik', 'Europe/Oslo']);
});

test('programs that differ in their clocks alone share all other parts, as the very same texts; opening hours and places are said where asked for', () => {
  const location = { latitude: 35.7, longitude: 139.7 };
  const hours = { mon: [['08:00', '20:00']] };
  const far = { id: 'far', name: 'Far', timeZone: 'Asia/Tokyo', tags: ['quay'], hours, location };
  const abroad = (plan: Plan): Plan => ({
    ...plan,
    sites: [...plan.sites, far as never],
    screens: [...plan.screens, { id: 'd', name: 'D', site: 'far', width: 1280, height: 720, tags: [] }],
  });
  const { made, screens, programs } = compiled(abroad);
  const partsOf = (id: string) => made.get(screens.get(id) ?? '')?.parts ?? [];
  expect(partsOf('a')).toHaveLength(3);
  expect(partsOf('d').slice(0, 2)).toEqual(partsOf('a').slice(0, 2));
  expect(partsOf('d')[2]).not.toBe(partsOf('a')[2]);
  for (const [hash, { parts }] of made) expect(parts.join('')).toBe(programs.get(hash));
  const asking = (...window: string[]) => {
    const { programs: texts, screens: targets } = compiled((plan) => {
      const { bookings, ...rest } = abroad(plan);
      return {
        ...rest,
        bookings: bookings.map((one) => ({ ...one, where: 'all', when: { windows: [window] as never } })),
      };
    });
    for (const text of texts.values()) expect(canonicalJson(JSON.parse(text))).toBe(text);
    return ['d', 'a'].map((id) => JSON.parse(texts.get(targets.get(id) ?? '') ?? '') as ProgramDocument);
  };
  const told = (programs: ProgramDocument[]) => programs.map((one) => [one.hours, one.location]);
  expect(told(asking('opens', 'closes'))).toEqual([
    [hours, undefined],
    [undefined, undefined],
  ]);
  expect(told(asking('sunset', '24:00'))).toEqual([
    [undefined, location],
    [undefined, undefined],
  ]);
});

test('screens that a selector calls by name, or whose site it does, have programs of their own', () => {
  const named = (where: string) =>
    compiled((plan) => ({ ...plan, bookings: plan.bookings.map((one) => ({ ...one, where })) })).screens;
  const byScreen = named('screen:b');
  expect(byScreen.get('a')).not.toBe(byScreen.get('b'));
  const bySite = named('site:quay');
  expect(bySite.get('a')).toBe(bySite.get('b'));
  expect(bySite.get('a')).not.toBe(byScreen.get('a'));
});

test('what stands prepared is fetched by its screens, and in no forecast; fired, nothing is left to fetch', () => {
  const as = (more: object) =>
    compiled((plan) => ({
      ...plan,
      bookings: plan.bookings.map((booking) => ({ ...booking, takeover: true, ...more })),
    }));
  const read = ({ programs, screens }: ReturnType<typeof compiled>, id: string) =>
    JSON.parse(programs.get(screens.get(id) ?? '') ?? '') as ProgramDocument;
  const [prepared, fired] = [read(as({ onHold: true }), 'c'), read(as({}), 'c')];
  expect(prepared.bookings).toEqual([]);
  expect(prepared.assets).toEqual(fired.assets);
  expect(Object.keys(prepared.assets).sort()).toEqual(['flag', 'rota']);
  expect(Object.keys(read(as({ onHold: true }), 'a').assets)).toEqual(['flag']);
  // A booking on hold that is no takeover is nothing to anybody.
  expect(Object.keys(read(as({ onHold: true, takeover: false }), 'c').assets)).toEqual(['flag']);
});

test('a program is named by the hash of its canonical form', () => {
  for (const [hash, text] of compiled().programs) {
    expect(sha256Hex(text)).toBe(hash);
    expect(canonicalJson(JSON.parse(text))).toBe(text);
  }
});

test('names and what other screens are told do not touch a program', () => {
  const before = compiled().screens;
  const after = compiled((plan) => ({
    ...plan,
    screens: plan.screens.map((screen) => ({ ...screen, name: `${screen.name} anew` })),
    bookings: plan.bookings.map((booking) => ({ ...booking, name: 'Another', priority: 5 })),
  })).screens;
  expect(after.get('a')).toBe(before.get('a'));
  expect(after.get('c')).not.toBe(before.get('c'));
});

test('a file without bytes is refused where a program needs it', () => {
  const read = readPlan({
    ...document,
    media: document.media.map(({ sha256: _sha256, type: _type, ...rest }) => rest),
  });
  expect(compileEdition(orThrow(read))).toMatchObject({
    ok: false,
    problems: [
      { path: '/media/0', message: expect.stringContaining('“flag” isn’t processed yet.') },
      { path: '/media/1', message: expect.stringContaining('“rota” isn’t processed yet.') },
    ],
  });
});

/** The plans of the worked forecasts, with files. */
const PLANS = readRows<{ request: { plan: unknown } }>('forecast/cases.jsonl').map(({ request }) => {
  const plan = orThrow(readPlan(request.plan));
  return { ...plan, media: plan.media.map((file) => ({ ...file, sha256: 'a'.repeat(64), type: 'image/png' })) };
});

/** One change somewhere in a plan, chosen by a number; null where the plan has no such thing. */
function changedPlan(plan: Plan, kind: number, pick: number): Plan | null {
  const one = <K extends 'calendars' | 'sites' | 'screens' | 'media' | 'playlists' | 'bookings'>(
    key: K,
    change: (entry: Plan[K][number]) => object,
  ): Plan | null => {
    const list: Plan[K][number][] = plan[key];
    if (list.length === 0) return null;
    const at = pick % list.length;
    return { ...plan, [key]: list.map((entry, i) => (i === at ? { ...entry, ...change(entry) } : entry)) };
  };
  switch (kind) {
    case 0:
      return one('bookings', () => ({ priority: (pick % 5) + 1, where: 'all' }));
    case 1:
      return one('bookings', () => ({ onHold: true }));
    case 2:
      return one('playlists', (list) => ({ items: [...list.items].reverse() }));
    case 3:
      return one('media', () => ({ when: { to: '2026-06-30' }, tags: [] }));
    case 4:
      return one('media', () => ({ sha256: 'b'.repeat(64) }));
    case 5:
      return one('sites', () => ({ tags: ['moved'] }));
    case 6:
      return one('screens', () => ({ tags: ['other'], lightsOut: [{ windows: [['22:00', '05:00']] }] }));
    case 7:
      return one('calendars', () => ({ dates: ['2026-12-24'] }));
    case 8:
      return { ...plan, network: { ...plan.network, defaultDurationMs: 7000 } };
    case 9:
      return plan.bookings.length === 0 ? null : { ...plan, bookings: plan.bookings.slice(1) };
    default:
      return one('screens', (screen) => ({ name: `${screen.name} anew` }));
  }
}

test('after any changes, only touched screens are compiled again, and the hashes are those of a whole compilation', () => {
  let kept = 0;
  fc.assert(
    fc.property(
      fc.nat(PLANS.length - 1),
      fc.array(fc.tuple(fc.nat(10), fc.nat(50)), { minLength: 1, maxLength: 3 }),
      (which, steps) => {
        const before = PLANS[which] as Plan;
        const base = orThrow(compileEdition(before));
        let after = before;
        for (const [kind, pick] of steps) after = changedPlan(after, kind, pick) ?? after;
        const whole = orThrow(compileEdition(after));
        const shared = sharing(before, JSON.parse(JSON.stringify(after)) as Plan);
        const next = orThrow(compileEdition(shared, { plan: before, screens: base.screens }));
        expect([...next.screens]).toEqual([...whole.screens]);
        for (const [hash, text] of next.programs) expect(whole.programs.get(hash)).toBe(text);
        for (const hash of next.screens.values()) expect(next.programs.has(hash) || base.programs.has(hash)).toBe(true);
        if (touchedScreens(before, shared).size < before.screens.length) kept++;
      },
    ),
    runs(150),
  );
  expect(kept).toBeGreaterThan(0);
});

test('with a base, what no change touches is not compiled again; a screen that the base lacks is', () => {
  const read = orThrow(readPlan(document));
  const base = orThrow(compileEdition(read));
  const same = orThrow(compileEdition(read, { plan: read, screens: base.screens }));
  expect(same.programs.size).toBe(0);
  expect([...same.screens]).toEqual([...base.screens]);
  const lacking = new Map([...base.screens].filter(([id]) => id !== 'c'));
  const next = orThrow(compileEdition(read, { plan: read, screens: lacking }));
  expect([...next.programs.keys()]).toEqual([base.screens.get('c')]);
});

test('a change of a calendar reaches screens by a file that hangs on it; a tag of a site reaches its screens', () => {
  const withCalendar = {
    ...document,
    calendars: [{ id: 'storms', name: 'Storms', dates: ['2026-12-01'] }],
    media: document.media.map((one) => (one.id === 'rota' ? { ...one, when: { not: ['storms'] } } : one)),
    bookings: document.bookings.map((one) => ({ ...one, where: 'staff and quay' })),
  };
  const before = orThrow(readPlan(withCalendar));
  const stormy = { ...before, calendars: [{ id: 'storms', name: 'Storms', dates: ['2026-12-02'] }] };
  expect([...touchedScreens(before, stormy)]).toEqual(['c']);
  const priority = { ...before, bookings: before.bookings.map((one) => ({ ...one, priority: 5 })) };
  expect([...touchedScreens(before, priority)]).toEqual(['c']);
});

test('plans that were read anew share what is the same, whatever the order of their fields', () => {
  const [plan] = PLANS as [Plan, ...Plan[]];
  const turned = (value: unknown): unknown =>
    Array.isArray(value)
      ? value.map(turned)
      : typeof value === 'object' && value !== null
        ? Object.fromEntries(
            Object.entries(value)
              .reverse()
              .map(([key, one]) => [key, turned(one)]),
          )
        : value;
  const again = sharing(plan, turned(plan) as Plan);
  expect(samePlan(again, plan)).toBe(true);
  expect(touchedScreens(plan, again).size).toBe(0);
  expect(samePlan(sharing(plan, { ...plan, bookings: [] }), plan)).toBe(plan.bookings.length === 0);
});
