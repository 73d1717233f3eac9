import { fieldsThatDiffer, newEntryId, withEntries, withEntryIds, withFields, type FieldConflict } from './entries';

test('a new id has nine letters, whatever chance says', () => {
  expect([newEntryId(() => 0), newEntryId(() => 0.5), newEntryId(() => 0.999999999999)]).toEqual([
    'e00000000',
    'ei0000000',
    expect.stringMatching(/^e[0-9a-z]{8}$/),
  ]);
});

test('ids that are given are free: not one of the list, not one of those that are known', () => {
  const made = withEntryIds([{ id: 'e1' }, { collect: 'a' }, { collect: 'b' }], [{ id: 'e3', collect: 'z' }]);
  expect(made.map(({ id }) => id)).toEqual(['e1', 'e2', 'e4']);
});

test('fields that differ: absent and null are the same, ids are not looked at', () => {
  expect(fieldsThatDiffer({ id: 'a', x: 1, y: null }, { id: 'b', x: 1 })).toBeNull();
  expect(fieldsThatDiffer({ x: 1 }, { y: 2 })).toEqual({ set: { x: null, y: 2 }, was: { x: 1, y: null } });
});

describe('fields over what somebody else made meanwhile', () => {
  const made = (set: object, was: object | undefined, entry?: string) => {
    const conflicts: FieldConflict[] = [];
    const after = withFields({ a: 1, b: 2 }, { ...set }, was && { ...was }, conflicts, entry);
    return { after, conflicts };
  };

  test('what was seen as it is, or not at all, is no conflict', () => {
    expect(made({ a: 5 }, { a: 1 })).toEqual({ after: { a: 5, b: 2 }, conflicts: [] });
    expect(made({ a: 5 }, undefined)).toEqual({ after: { a: 5, b: 2 }, conflicts: [] });
    expect(made({ a: 5 }, { b: 7 })).toEqual({ after: { a: 5, b: 2 }, conflicts: [] });
  });

  test('what another made the same is no conflict; what another made otherwise is one, with both values', () => {
    expect(made({ a: 1 }, { a: 9 }).conflicts).toEqual([]);
    expect(made({ a: 5 }, { a: 9 }).conflicts).toEqual([{ field: 'a', theirs: 1, mine: 5 }]);
    expect(made({ a: 5 }, { a: 9 }, 'e1').conflicts).toEqual([{ entry: 'e1', field: 'a', theirs: 1, mine: 5 }]);
  });

  test('null takes a field away', () => {
    expect(made({ a: null }, { a: 1 })).toEqual({ after: { b: 2 }, conflicts: [] });
    expect(made({ c: null }, { c: 3 })).toEqual({ after: { a: 1, b: 2 }, conflicts: [] });
  });
});

test('an entry is put at the front, behind another, or at the end where that one is gone', () => {
  const list = [{ id: 'a' }, { id: 'b' }];
  const order = (after: string | null) => withEntries(list, [{ id: 'x', add: {}, after }], []).map(({ id }) => id);
  expect([order(null), order('a'), order('b'), order('gone')]).toEqual([
    ['x', 'a', 'b'],
    ['a', 'x', 'b'],
    ['a', 'b', 'x'],
    ['a', 'b', 'x'],
  ]);
});

test('what is told of entries that are gone: a change is a conflict, a move and a removal are not', () => {
  const conflicts: FieldConflict[] = [];
  const gone = 'gone';
  const made = withEntries(
    [{ id: 'a' }],
    [
      { id: gone, after: null },
      { id: gone, remove: true },
      { id: gone, set: { where: 'hall' } },
      { id: gone, set: {} },
    ],
    conflicts,
  );
  expect(made).toEqual([{ id: 'a' }]);
  expect(conflicts).toEqual([
    { entry: 'gone', field: 'where', theirs: null, mine: { where: 'hall' } },
    { entry: 'gone', field: 'id', theirs: null, mine: {} },
  ]);
});

test('taking out what somebody changed is a conflict; as it was seen, or seen by nobody, it is none', () => {
  const out = (was: object | undefined) => {
    const conflicts: FieldConflict[] = [];
    const made = withEntries(
      [{ id: 'a', limit: 5 }],
      [{ id: 'a', remove: true, ...(was && { was: { ...was } }) }],
      conflicts,
    );
    expect(made).toEqual([]);
    return conflicts;
  };
  expect(out({ limit: 5 })).toEqual([]);
  expect(out(undefined)).toEqual([]);
  expect(out({ limit: 4 })).toEqual([{ entry: 'a', field: 'limit', theirs: 5, mine: null }]);
});
