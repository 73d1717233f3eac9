import { edit } from '../plan';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { changesSince, lastChange, undo } from '../plan';
import type { Actor } from '../people';
import { findInLibrary } from '.';

useDatabase();

/** A network with files f0 to f6, the last one the newest; odd ones are tagged. */
async function library(): Promise<Actor> {
  const actor = await newNetwork();
  await newPlan(actor);
  await edit(
    actor,
    Array.from({ length: 7 }, (_, i) => ({
      ...{ kind: 'media' as const, id: `f${i}` },
      add: {
        ...{ name: `File ${i}`, kind: 'image' as const, width: 1, height: 1, bytes: 1, tags: i % 2 ? ['odd'] : [] },
        added: `2026-01-0${i + 1}T00:00:00Z`,
      },
    })),
  );
  return actor;
}

const all = { search: '', from: 0, count: 100, unused: false };
const ids = ({ files }: { readonly files: readonly { readonly id: string }[] }) => files.map((one) => one.id).join(' ');

test('files come by pages, the newest first, with how many there are and where it goes on', async () => {
  const actor = await library();
  const first = await findInLibrary(actor, { ...all, count: 3 });
  expect([ids(first), first.total, first.next]).toEqual(['f6 f5 f4', 7, 3]);
  const last = await findInLibrary(actor, { ...all, from: 4, count: 3 });
  expect([ids(last), last.total, last.next]).toEqual(['f2 f1 f0', 7, null]);
  const odd = await findInLibrary(actor, { ...all, search: 'odd', count: 2 });
  expect([ids(odd), odd.total, odd.next]).toEqual(['f5 f3', 3, 2]);
  expect(await findInLibrary(actor, { ...all, from: 50 })).toEqual({ files: [], total: 7, next: null });
});

test('unused files are those that nothing names or collects; another network has its own', async () => {
  const actor = await library();
  const other = await library();
  await edit(actor, [
    { kind: 'playlist', id: 'house', set: { items: [{ media: 'f0' }, { collect: 'odd' }] } },
    { kind: 'site', id: 'quay', set: { backdrop: { media: 'f2' } } },
  ]);
  expect(ids(await findInLibrary(actor, { ...all, unused: true }))).toBe('f6 f4');
  expect((await findInLibrary(other, { ...all, unused: true })).total).toBe(7);
  await edit(other, [{ kind: 'media', id: 'f6', remove: true }]);
  expect(ids(await findInLibrary(actor, { ...all, count: 1 }))).toBe('f6');
});

test('who follows changes, and who made them, is given the files that came into use, by name, by a rule, or changed', async () => {
  const actor = await library();
  const given = async (edits: Parameters<typeof edit>[1]) => {
    const before = await lastChange(actor.networkId);
    const result = await edit(actor, edits);
    const told = await changesSince(actor.networkId, before);
    expect(told?.media).toEqual(result.media);
    return ids({ files: result.media });
  };
  const items = (...list: object[]) => [{ kind: 'playlist' as const, id: 'house', set: { items: list } }];
  expect(await given([{ kind: 'screen', id: 'hall', set: { name: 'Great hall' } }])).toBe('');
  expect(await given(items({ media: 'f0' }, { media: 'f2' }))).toBe('f0 f2');
  expect(await given(items({ media: 'f2' }, { media: 'f4' }))).toBe('f4');
  expect(await given(items({ media: 'f2' }, { collect: 'odd' }))).toBe('f1 f3 f5');
  expect(await given(items({ collect: 'odd' }, { media: 'f2' }))).toBe('');
  expect(await given([{ kind: 'media', id: 'f6', set: { tags: ['odd'] } }])).toBe('f6');
  expect(await given([{ kind: 'media', id: 'f0', remove: true }])).toBe('');
  // Taken back, it is a new file for whoever did not have it, and comes by its own patch.
  expect((await undo(actor, 'undo')).patches).toMatchObject([{ id: 'f0', add: { name: 'File 0' } }]);
});
