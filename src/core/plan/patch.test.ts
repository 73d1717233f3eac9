import fc from 'fast-check';
import equal from 'fast-deep-equal';
import { randomPlan } from '../tests/random-plan';
import { entryPatches, withEntries, withEntryIds, type Entry, type FieldConflict } from './entries';
import { planFile } from './file';
import {
  added,
  changed,
  merge,
  objectIn,
  patchOf,
  patchesBetween,
  removed,
  withObject,
  withPatches,
  withoutWas,
} from './patch';
import { emptyPlan, type Plan } from './schema';
import { LISTED_KINDS, collectionOf, type ListedKind } from './registry';
import { runs } from '../tests/runs';

const screen = { id: 'hall', name: 'Hall', site: 'quay', width: 1920, height: 1080, tags: ['hall'] };

describe('fields of one object', () => {
  test('a patch holds the fields that differ, as they are and as they were; an absent one is null', () => {
    expect(patchOf('screen', 'hall', screen, { ...screen, name: 'Great hall', tags: undefined })).toEqual({
      kind: 'screen',
      id: 'hall',
      set: { name: 'Great hall', tags: null },
      was: { name: 'Hall', tags: ['hall'] },
    });
    expect(patchOf('screen', 'hall', screen, { ...screen })).toBeNull();
  });

  test('what a patch does not name stays as others made it', () => {
    const mine = { kind: 'screen', id: 'hall', set: { width: 1280 }, was: { width: 1920 } } as const;
    const { after, conflicts } = merge(mine, 'hall', { ...screen, name: 'Great hall', height: 720 });
    expect(after).toEqual({ ...screen, name: 'Great hall', height: 720, width: 1280 });
    expect(conflicts).toEqual([]);
  });

  test.each([
    ['the same field to another value', { name: 'Small hall' }, { name: 'Great hall' }, 1],
    ['the same field to the same value', { name: 'Great hall' }, { name: 'Great hall' }, 0],
    ['a field that the other took away', { tags: ['hall', 'wide'] }, { tags: undefined }, 1],
    ['another field', { width: 1 }, { name: 'Great hall' }, 0],
  ])('%s', (_what, mine, theirs, count) => {
    const patch = patchOf('screen', 'hall', screen, { ...screen, ...mine });
    if (!patch) throw new Error('nothing changed');
    expect(merge(patch, 'hall', { ...screen, ...theirs }).conflicts).toHaveLength(count);
  });

  test('removing what somebody changed is a conflict; removing it as it was seen is none', () => {
    const patch = patchOf('screen', 'hall', screen, null);
    if (!patch) throw new Error('nothing changed');
    expect(merge(patch, 'hall', screen)).toEqual({ after: null, conflicts: [] });
    expect(merge(patch, 'hall', { ...screen, width: 5 }).conflicts).toEqual([
      { field: 'width', theirs: 5, mine: null },
    ]);
  });
});

describe('entries of a list, by their ids', () => {
  const list = (text: string): Entry[] => [...text].map((letter) => ({ id: letter, collect: letter }));
  const order = (entries: readonly Entry[]) => entries.map((entry) => entry.id).join('');
  const both = (start: string, mine: Entry[], theirs: Entry[]) => {
    const conflicts: FieldConflict[] = [];
    const now = withEntries(list(start), entryPatches(list(start), theirs), conflicts);
    return { made: withEntries(now, entryPatches(list(start), mine), conflicts), conflicts };
  };

  test('one moved entry is one patch, wherever it goes', () => {
    expect(entryPatches(list('abcdef'), list('bcdefa'))).toEqual([{ id: 'a', after: 'f' }]);
    expect(entryPatches(list('abcdef'), list('fabcde'))).toEqual([{ id: 'f', after: null }]);
    expect(entryPatches(list('abcdef'), list('abcdef'))).toEqual([]);
  });

  test.each([
    ['both move another', 'abcd', 'bcda', 'abdc', 'bdac'],
    ['one moves, one takes out', 'abcd', 'dabc', 'acd', 'dac'],
    ['one puts in where the other takes out', 'abc', 'abxc', 'ac', 'acx'],
    ['both put in at the end', 'ab', 'abx', 'aby', 'abxy'],
  ])('%s', (_what, start, mine, theirs, expected) => {
    const { made, conflicts } = both(start, list(mine), list(theirs));
    expect(order(made)).toBe(expected);
    expect(conflicts).toEqual([]);
  });

  test('one changes what the other took out: told, and it stays out', () => {
    const [a, b] = list('ab');
    const { made, conflicts } = both('ab', [{ ...a, where: 'hall' } as Entry, b as Entry], [b as Entry]);
    expect(order(made)).toBe('b');
    expect(conflicts).toMatchObject([{ entry: 'a', field: 'where', theirs: null }]);
  });

  test('two who put an entry in under one id at once: both stay, under ids of their own', () => {
    const start = list('a');
    const add = (collect: string) => [...start, { id: 'e1', collect }];
    const { made } = both('a', add('mine'), add('theirs'));
    expect(made.map((entry) => entry.collect)).toEqual(['a', 'mine', 'theirs']);
    expect(new Set(made.map((entry) => entry.id)).size).toBe(3);
  });

  test('entries without ids get those of the entries that say the same', () => {
    const known = [
      { id: 'x', collect: 'a' },
      { id: 'y', collect: 'b' },
    ];
    expect(withEntryIds([{ collect: 'b' }, { collect: 'c' }, { collect: 'a' }], known)).toEqual([
      { id: 'y', collect: 'b' },
      { id: 'e1', collect: 'c' },
      { id: 'x', collect: 'a' },
    ]);
  });

  const letters = fc.uniqueArray(fc.constantFrom(...'abcdefghij'), { maxLength: 10 });
  test('whatever the lists: the patches lead from one to the other', () => {
    fc.assert(
      fc.property(letters, letters, fc.func(fc.nat({ max: 2 })), (before, after, value) => {
        const made = (side: string) => (id: string) => ({ id, limit: value(side === 'after' ? id : '') });
        const [old, next] = [before.map(made('before')), after.map(made('after'))];
        const conflicts: FieldConflict[] = [];
        expect(withEntries(old, entryPatches(old, next), conflicts)).toEqual(next);
        expect(conflicts).toEqual([]);
      }),
      runs(400),
    );
  });

  test('whatever two people move, put in and take out: nothing is lost or doubled', () => {
    fc.assert(
      fc.property(letters, letters, letters, (start, mine, theirs) => {
        const { made } = both(start.join(''), list(mine.join('')), list(theirs.join('')));
        const kept = start.filter((id) => mine.includes(id) && theirs.includes(id));
        const added = [...mine, ...theirs].filter((id) => !start.includes(id));
        const ids = made.map((entry) => entry.collect);
        for (const id of kept) expect(ids.filter((one) => one === id)).toHaveLength(1);
        expect(ids).toHaveLength(kept.length + added.length);
      }),
      runs(400),
    );
  });
});

test('whatever two plans: the patches of their objects lead from one to the other, and share what is the same', () => {
  fc.assert(
    fc.property(randomPlan, randomPlan, ({ plan: before }, { plan: after }) => {
      const patches = LISTED_KINDS.flatMap((kind: ListedKind) => {
        const lists: readonly { readonly id: string }[][] = [before[collectionOf(kind)], after[collectionOf(kind)]];
        const ids = new Set(lists.flat().map((one) => one.id));
        return [...ids].flatMap((id) => patchOf(kind, id, objectIn(before, kind, id), objectIn(after, kind, id)) ?? []);
      });
      const made = withPatches(before, patches);
      for (const kind of LISTED_KINDS) {
        const list: readonly { readonly id: string }[] = after[collectionOf(kind)];
        for (const { id } of list)
          expect(patchOf(kind, id, objectIn(made, kind, id), objectIn(after, kind, id))).toBeNull();
        expect(made[collectionOf(kind)]).toHaveLength(list.length);
      }
      const untouched = before.sites.filter((site) => equal(site, objectIn(after, 'site', site.id)));
      for (const site of untouched) expect(made.sites).toContain(site);
    }),
    runs(60),
  );
});

test('a plan with one object changed shares all else', () => {
  fc.assert(
    fc.property(randomPlan, ({ plan }) => {
      const [first] = plan.screens;
      if (!first) throw new Error('random plans have screens');
      const made = withObject(plan, 'screen', first.id, { ...first, name: 'Another' });
      expect(made.screens[0]?.name).toBe('Another');
      expect(made.screens.slice(1).every((one, i) => one === plan.screens[i + 1])).toBe(true);
      for (const kind of LISTED_KINDS)
        expect(made[collectionOf(kind)] === plan[collectionOf(kind)]).toBe(kind !== 'screen');
      expect(withObject(plan, 'screen', 'nowhere', null)).toBe(plan);
    }),
    runs(20),
  );
});

describe('between two plans', () => {
  const inOrder = (list: readonly { readonly id: string }[]) => [...list].sort((a, b) => (a.id < b.id ? -1 : 1));

  test('the patches lead from one to the other, whatever the two are', () => {
    fc.assert(
      fc.property(randomPlan, randomPlan, ({ plan: before }, { plan: after }) => {
        const made = withPatches(before, patchesBetween(before, after));
        for (const kind of LISTED_KINDS) {
          const collection = collectionOf(kind);
          expect(inOrder(planFile(made)[collection])).toEqual(inOrder(planFile(after)[collection]));
        }
        expect(made.network).toEqual(after.network);
        expect(patchesBetween(after, after)).toEqual([]);
        expect(patchesBetween(made, made)).toEqual([]);
      }),
      runs(60),
    );
  });

  test('by hand: the network first, then what goes, comes and differs, each once; the same object is not looked into', () => {
    const [quay, pier] = [
      { id: 'quay', name: 'Quay', timeZone: 'UTC' },
      { id: 'pier', name: 'Pier', timeZone: 'UTC' },
    ];
    const before = { ...emptyPlan('N'), sites: [quay, pier] };
    const after = {
      ...emptyPlan('M'),
      sites: [
        { ...quay, name: 'Great quay' },
        { id: 'new', name: 'New', timeZone: 'UTC' },
      ],
    };
    expect(patchesBetween(before, after)).toEqual([
      { kind: 'network', id: 'network', set: { name: 'M' }, was: { name: 'N' } },
      { kind: 'site', id: 'quay', set: { name: 'Great quay' }, was: { name: 'Quay' } },
      { kind: 'site', id: 'pier', remove: true, was: { name: 'Pier', timeZone: 'UTC' } },
      { kind: 'site', id: 'new', add: { name: 'New', timeZone: 'UTC' } },
    ]);
    const same = Object.defineProperty({ ...quay }, 'name', { enumerable: true, get: () => Math.random().toString() });
    expect(patchesBetween({ ...before, sites: [same] }, { ...before, sites: [same] })).toEqual([]);
  });
});

describe('patches as forms and gestures make them', () => {
  test('added, changed, removed: without ids in documents, and nothing where nothing differs', () => {
    expect(added('screen', { ...screen, lightsOut: undefined })).toEqual({
      kind: 'screen',
      add: { name: 'Hall', site: 'quay', width: 1920, height: 1080, tags: ['hall'] },
    });
    expect(changed('screen', screen, { width: 5 })).toEqual([
      { kind: 'screen', id: 'hall', set: { width: 5 }, was: { width: 1920 } },
    ]);
    expect(changed('screen', screen, { width: 1920 })).toEqual([]);
    expect(removed('screen', screen)).toMatchObject({
      kind: 'screen',
      id: 'hall',
      remove: true,
      was: { name: 'Hall' },
    });
  });

  test('for those who only follow, what was seen before is left out: of fields, of entries, of what is removed', () => {
    const add = { kind: 'screen', add: { name: 'New' } } as const;
    expect(withoutWas(add)).toBe(add);
    expect(withoutWas({ kind: 'screen', id: 'a', remove: true, was: { name: 'A' } })).toEqual({
      kind: 'screen',
      id: 'a',
      remove: true,
    });
    expect(withoutWas({ kind: 'screen', id: 'a', set: { name: 'B' }, was: { name: 'A' } })).toEqual({
      kind: 'screen',
      id: 'a',
      set: { name: 'B' },
    });
    expect(
      withoutWas({
        ...{ kind: 'playlist', id: 'p', set: {}, was: {} },
        entries: {
          items: [
            { id: 'x', set: { where: 'hall' }, was: { where: 'deck' } },
            { id: 'y', after: null },
          ],
        },
      }),
    ).toEqual({
      kind: 'playlist',
      id: 'p',
      set: {},
      entries: {
        items: [
          { id: 'x', set: { where: 'hall' } },
          { id: 'y', after: null },
        ],
      },
    });
  });

  test('what is set of an object that is not there makes nothing', () => {
    expect(merge({ kind: 'screen', id: 'a', set: { name: 'B' } }, 'a', null)).toEqual({ after: null, conflicts: [] });
    expect(merge({ kind: 'screen', id: 'a', remove: true, was: {} }, 'a', null)).toEqual({
      after: null,
      conflicts: [],
    });
  });

  test('a new object has its id, ids for its entries, and no field without a value; the network has no id', () => {
    expect(
      merge({ kind: 'playlist', add: { name: 'P', items: [{ media: 'm' }], x: undefined } }, 'p', null).after,
    ).toEqual({
      ...{ id: 'p', name: 'P', items: [{ id: 'e1', media: 'm' }] },
    });
    expect(merge({ kind: 'network', add: { name: 'N' } }, 'network', null).after).toEqual({ name: 'N' });
  });

  test('looking ahead, a new object without an id has a passing one of its own', () => {
    const made = withPatches(emptyPlan('N'), [
      { kind: 'site', add: { name: 'A', timeZone: 'UTC' } },
      { kind: 'site', add: { name: 'B', timeZone: 'UTC' } },
    ]);
    expect(made.sites.map(({ id }) => id)).toEqual(['new-0', 'new-1']);
  });
});

test('between plans that are one there is nothing, and what they share is not looked into', () => {
  const plan: Plan = { ...emptyPlan('Line'), sites: [{ id: 'quay', name: 'Quay', timeZone: 'UTC' }] };
  expect(patchesBetween(plan, plan)).toEqual([]);
  const trap = new Proxy(plan.network, {
    ownKeys() {
      throw new Error('looked into');
    },
  });
  const [before, after] = [
    { ...plan, network: trap },
    { ...plan, network: trap, sites: [{ id: 'quay', name: 'Pier', timeZone: 'UTC' }] },
  ];
  expect(patchesBetween(before, after)).toEqual([
    { kind: 'site', id: 'quay', set: { name: 'Pier' }, was: { name: 'Quay' } },
  ]);
  const closed = new Proxy(plan, {
    get() {
      throw new Error('looked into');
    },
  });
  expect(patchesBetween(closed, closed)).toEqual([]);
});
