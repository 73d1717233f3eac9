import fc from 'fast-check';
import { findMedia, type Media } from '@/core/plan';
import { draftPlan, edit } from '../plan';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { changesSince, lastChange, undo } from '../plan';
import type { Actor } from '../people';
import { findInLibrary, libraryFacets, libraryTags } from '.';

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

const all = {
  search: '',
  from: 0,
  count: 100,
  unused: false,
  kind: null,
  audible: false,
  ending: false,
  archived: false,
  among: null,
  small: [] as string[],
};
/** The date so many days from today, as a plan writes it. */
function day(ahead: number): string {
  return new Date(Date.now() + ahead * 86_400_000).toISOString().slice(0, 10);
}
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

test.each([
  ['several sets of hours end with the last of them', { any: [{ to: day(-3) }, { to: day(2) }] }, true],
  ['one set without an end', { any: [{ to: day(2) }, { from: day(0) }] }, false],
  ['hours that end days after they begin', { to: day(-2), windows: [['18:00', '06:00', 4]] }, true],
  ['over by now', { any: [{ to: day(-3) }, { to: day(-2) }] }, false],
])('files that end within a week: %s', async (_, when, isEnding) => {
  const actor = await library();
  await edit(actor, [{ kind: 'media', id: 'f0', set: { when } }]);
  expect(ids(await findInLibrary(actor, { ...all, ending: true }))).toBe(isEnding ? 'f0' : '');
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

/** A network with these files. */
async function filled(files: readonly Partial<Media>[]): Promise<Actor> {
  const actor = await newNetwork();
  const added = (i: number) => new Date(Date.UTC(2026, 0, 1) + i * 60_000).toISOString();
  await edit(
    actor,
    files.map((file, i) => ({
      ...{ kind: 'media' as const, id: file.id ?? `f${i}` },
      add: {
        name: `File ${i}`,
        kind: 'image' as const,
        width: 4,
        height: 3,
        bytes: 1,
        added: added(i),
        ...file,
        id: undefined,
      },
    })),
  );
  return actor;
}

test('whatever is typed, the index finds what the core finds, in the same order', async () => {
  const word = fc.constantFrom(
    'pier',
    'Dawn',
    'ØY',
    'øy',
    'Café',
    'cafe',
    'Straße',
    'strasse',
    'Łódź',
    'Zürich',
    '50%',
    'a_b',
    'back\\slash',
    "o'clock",
    '中文',
    'map',
    '2026',
  );
  const tag = fc.constantFrom('winter', 'Winter', 'harbour', 'øyer', 'lane:1');
  const library = fc.array(
    fc.record({
      name: fc.array(word, { minLength: 1, maxLength: 3 }).map((words) => words.join(' ')),
      tags: fc.uniqueArray(tag, { maxLength: 3, selector: (one) => one.toLowerCase() }),
      kind: fc.constantFrom('image' as const, 'video' as const),
      width: fc.constantFrom(1, 2),
      height: fc.constantFrom(1, 2),
    }),
    { minLength: 12, maxLength: 20 },
  );
  const search = fc.oneof(
    fc
      .array(fc.oneof(word, tag, fc.constantFrom('p', '%', '_', '\\', 'win', 'ø')), { maxLength: 2 })
      .map((all) => all.join(' ')),
    fc.constantFrom('winter and not harbour', 'kind:video or is:square', 'not all', 'PIER', '(', "';--", 'lane:1'),
  );
  await fc.assert(
    fc.asyncProperty(library, fc.array(search, { minLength: 12, maxLength: 12 }), async (files, searches) => {
      const actor = await filled(files.map((file) => (file.kind === 'video' ? { ...file, durationMs: 1000 } : file)));
      const { media } = (await draftPlan(actor)).plan;
      for (const text of searches)
        expect([text, ids(await findInLibrary(actor, { ...all, search: text }))]).toEqual([
          text,
          ids({ files: findMedia(media, text) }),
        ]);
    }),
    { numRuns: 15 },
  );
});

test('a file is found whatever the accents, in its name and its tags, and by either form of a letter', async () => {
  const actor = await filled([
    { id: 'cafe', name: 'Café menu' },
    { id: 'island', name: 'Brennøy', tags: ['Ålesund'] },
    { id: 'apart', name: 'Cafe\u0301 in two characters' },
  ]);
  const found = async (search: string) => ids(await findInLibrary(actor, { ...all, search }));
  for (const search of ['cafe', 'CAFÉ', 'cafe\u0301'])
    expect([search, await found(search)]).toEqual([search, 'apart cafe']);
  expect(await found('brennoy')).toBe('island');
  expect(await found('alesund')).toBe('island');
  expect(await found('cafè menu')).toBe('cafe');
});

test('a size finds what fits it, either way round: the size itself first, then its shape; with words too', async () => {
  const actor = await filled([
    { id: 'wide', width: 384, height: 192 },
    { id: 'tall', name: 'Gale', width: 192, height: 384 },
    { id: 'double', width: 768, height: 384 },
    { id: 'half', width: 96, height: 192 },
    { id: 'nearly', width: 1000, height: 504 },
    { id: 'other', width: 1920, height: 1080 },
  ]);
  const found = async (search: string) => ids(await findInLibrary(actor, { ...all, search }));
  expect(await found('192x384')).toBe('tall wide nearly half double');
  expect(await found(' 384 × 192 ')).toBe('tall wide nearly half double');
  expect(await found('gale 384X192')).toBe('tall');
  expect(await found('384x192 file')).toBe('wide nearly half double');
  expect(await found('0x192')).toBe('');
  expect(await found('7x3')).toBe('');
});

const SOUND = { kind: 'sound', width: undefined, height: undefined, durationMs: 1000 } as const;

test('what there is is counted by what it may be narrowed to, and narrowed', async () => {
  const soon = (days: number) => ({
    when: { to: new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10) },
  });
  const actor = await filled([
    { id: 'a', tags: ['winter', 'Pier'], ...soon(3) },
    { id: 'b', tags: ['winter'], kind: 'video', audio: true, durationMs: 1000, ...soon(9) },
    { id: 'c', name: 'Map', ...soon(-1) },
    { id: 'd', name: 'Map 2', tags: ['pier'] },
    { id: 'e', name: 'Waves', ...SOUND },
  ]);
  await edit(actor, [
    {
      kind: 'playlist',
      id: 'loop',
      add: { name: 'Loop', items: [{ media: 'c' }, { collect: 'winter and not pier' }] },
    },
  ]);
  const facets = await libraryFacets(actor, all);
  expect(facets).toEqual({
    ...{ image: 3, video: 1, sound: 1, audible: 2, unused: 3, ending: 1, archived: 0, small: 0 },
    tags: [
      { tag: 'pier', count: 2 },
      { tag: 'winter', count: 2 },
    ],
  });
  expect(ids(await findInLibrary(actor, { ...all, unused: true }))).toBe('e d a');
  expect(ids(await findInLibrary(actor, { ...all, ending: true }))).toBe('a');
  expect(ids(await findInLibrary(actor, { ...all, kind: 'video' }))).toBe('b');
  expect(ids(await findInLibrary(actor, { ...all, kind: 'sound' }))).toBe('e');
  expect(ids(await findInLibrary(actor, { ...all, search: 'kind:sound' }))).toBe('e');
  expect(ids(await findInLibrary(actor, { ...all, audible: true }))).toBe('e b');
  expect(ids(await findInLibrary(actor, { ...all, search: '1x1' }))).not.toContain('e');
  expect(ids(await findInLibrary(actor, { ...all, kind: 'image', search: 'map', unused: true }))).toBe('d');
  expect(await libraryFacets(actor, { ...all, kind: 'video' })).toMatchObject({
    ...{ image: 3, video: 1, unused: 0, ending: 0 },
    tags: [{ tag: 'winter', count: 1 }],
  });
  expect(await libraryFacets(actor, { ...all, search: 'map' })).toMatchObject({ image: 2, video: 0, unused: 1 });
  expect(await libraryFacets(actor, { ...all, search: 'nowhere' })).toEqual({
    ...{ image: 0, video: 0, sound: 0, audible: 0, unused: 0, ending: 0, archived: 0, small: 0 },
    tags: [],
  });
  expect(await libraryTags(actor)).toEqual([
    { tag: 'pier', count: 2 },
    { tag: 'winter', count: 2 },
  ]);
});

test('the index follows what becomes of files: new names, new tags, removal, and taking that back', async () => {
  const actor = await filled([{ id: 'a', name: 'Old name', tags: ['old'] }]);
  const found = async (search: string) => ids(await findInLibrary(actor, { ...all, search }));
  await edit(actor, [{ kind: 'media', id: 'a', set: { name: 'New name', tags: ['new'] } }]);
  expect([await found('old'), await found('new')]).toEqual(['', 'a']);
  await edit(actor, [{ kind: 'media', id: 'a', remove: true }]);
  expect(await found('new')).toBe('');
  await undo(actor, 'undo');
  expect(await found('new')).toBe('a');
});

test('what is archived is found among the archived alone, and is used by no rule', async () => {
  const actor = await library();
  await edit(actor, [
    { kind: 'media', id: 'f5', set: { archived: true } },
    { kind: 'media', id: 'f0', set: { archived: true } },
  ]);
  expect(ids(await findInLibrary(actor, all))).toBe('f6 f4 f3 f2 f1');
  expect(ids(await findInLibrary(actor, { ...all, archived: true }))).toBe('f5 f0');
  expect(ids(await findInLibrary(actor, { ...all, archived: true, search: 'odd' }))).toBe('f5');
  expect(await libraryFacets(actor, all)).toMatchObject({ image: 5, archived: 2, tags: [{ tag: 'odd', count: 2 }] });
  expect(await libraryFacets(actor, { ...all, search: 'odd' })).toMatchObject({ image: 2, archived: 1 });
  await edit(actor, [{ kind: 'media', id: 'f5', set: { archived: null } }]);
  expect(ids(await findInLibrary(actor, { ...all, search: 'odd' }))).toBe('f5 f3 f1');
});

test('of files that are named by their ids alone those are told, and how many of what is meant are among them', async () => {
  const actor = await library();
  expect(ids(await findInLibrary(actor, { ...all, among: ['f5', 'f2', 'nothing'] }))).toBe('f5 f2');
  expect(ids(await findInLibrary(actor, { ...all, search: 'odd', among: ['f5', 'f2'] }))).toBe('f5');
  expect((await findInLibrary(actor, { ...all, among: [] })).total).toBe(0);
  expect(await libraryFacets(actor, { ...all, small: ['f5', 'f2'] })).toMatchObject({ image: 7, small: 2 });
  expect(await libraryFacets(actor, { ...all, search: 'odd', small: ['f5', 'f2'] })).toMatchObject({
    image: 3,
    small: 1,
  });
});
