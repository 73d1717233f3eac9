import { MediaFilesRow, rows, transaction } from '@/database';
import { addPerson } from '../people';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { draftPlan, edit, editWithin, nextActs, nextToTakeBack, undo } from '.';

useDatabase();

const screen = (name: string) => ({ name, site: 'quay', width: 1080, height: 1920, tags: ['deck'] });
const rename = (actor: Parameters<typeof edit>[0], name: string) =>
  edit(actor, [{ kind: 'screen', id: 'deck', set: screen(name) }]);
const nameOf = async (actor: Parameters<typeof edit>[0]) =>
  (await draftPlan(actor)).plan.screens.find(({ id }) => id === 'deck')?.name;

describe('which act is next', () => {
  const acts = (...list: (string | [string, string])[]) =>
    list.map((one) => (typeof one === 'string' ? { id: one } : { id: one[0], takesBack: one[1] }));

  test.each([
    ['nothing done', acts(), null, null],
    ['two acts', acts('a', 'b'), 'b', null],
    ['one of them undone', acts('a', 'b', ['u', 'b']), 'a', 'u'],
    ['both undone', acts('a', 'b', ['u', 'b'], ['v', 'a']), null, 'v'],
    ['one made again', acts('a', 'b', ['u', 'b'], ['v', 'a'], ['r', 'v']), 'r', 'u'],
    ['both made again', acts('a', 'b', ['u', 'b'], ['v', 'a'], ['r', 'v'], ['s', 'u']), 's', null],
    ['what was made again, undone', acts('a', ['u', 'a'], ['r', 'u'], ['w', 'r']), null, 'w'],
    ['a new act after an undo ends redo', acts('a', ['u', 'a'], 'b'), 'b', null],
    ['an undo whose act is out of sight stands as an act', acts(['u', 'long-ago']), 'u', null],
  ])('%s', (_what, list, undone, redone) => {
    expect(nextActs(list)).toEqual({ undo: undone, redo: redone });
  });
});

test('undo walks back through changes of the same thing, redo walks forward, each as a new change', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  for (const name of ['A', 'B', 'C']) await rename(actor, name);
  const seen = [];
  for (const way of ['undo', 'undo', 'redo', 'undo', 'undo', 'redo', 'redo', 'redo', 'redo'] as const) {
    const { about } = await undo(actor, way);
    seen.push([way, about, await nameOf(actor)]);
  }
  expect(seen).toEqual([
    ['undo', '“C”', 'B'],
    ['undo', '“B”', 'A'],
    ['redo', '“A”', 'B'],
    ['undo', '“B”', 'A'],
    ['undo', '“A”', 'Deck'],
    ['redo', '“Deck”', 'A'],
    ['redo', '“A”', 'B'],
    ['redo', '“B”', 'C'],
    ['redo', null, 'C'],
  ]);
});

test('it is said beforehand what would be taken back; what is no longer fresh is named first, and taken back when one is sure', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  await rename(actor, 'Old');
  expect(await nextToTakeBack(actor)).toEqual({ undo: '“Old”', redo: null });
  await rows(`UPDATE changes SET at = at - interval '20 minutes' WHERE network_id = $1`, [actor.networkId]);
  const { asks, about, changes } = await undo(actor, 'undo');
  expect([about, changes, asks?.ageMs, await nameOf(actor)]).toEqual([
    '“Old”',
    [],
    expect.closeTo(20 * 60_000, -5),
    'Old',
  ]);
  expect((await undo(actor, 'undo', 'another')).asks).toEqual({ act: asks?.act, ageMs: expect.any(Number) });
  expect([(await undo(actor, 'undo', asks?.act)).asks, await nameOf(actor)]).toEqual([undefined, 'Deck']);
  expect(await nextToTakeBack(actor)).toMatchObject({ redo: '“Deck”' });
});

test('what a program did with one’s key is not taken back by hand: the last act of one’s own is', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  await rename(actor, 'Mine');
  await edit({ ...actor, byKey: true }, [{ kind: 'screen', id: 'deck', set: { ...screen('Mine'), tags: ['key'] } }]);
  expect(await undo(actor, 'undo')).toMatchObject({ about: '“Mine”' });
  const { plan } = await draftPlan(actor);
  expect(plan.screens.find(({ id }) => id === 'deck')).toMatchObject({ name: 'Deck', tags: ['key'] });
});

test('an act that comes in several requests is one step; nobody goes on with what is not theirs', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const other = await addPerson(actor.networkId, {
    name: 'O',
    email: 'goes-on@example.org',
    password: 'a long password',
  });
  const add = (name: string) => [{ kind: 'playlist' as const, add: { name, items: [] } }];
  const { act: goesOn } = await edit(actor, add('First'));
  await edit(other, add('Between'));
  expect((await edit(actor, add('Second'), { goesOn })).act).toBe(goesOn);
  for (const [who, act] of [
    [other, goesOn],
    [await newNetwork(), goesOn],
    [actor, '00000000-0000-7000-8000-000000000000'],
  ] as const)
    await expect(edit(who, add('Third'), { goesOn: act })).rejects.toMatchObject({ status: 422 });
  await undo(actor, 'undo');
  const names = (await draftPlan(actor)).plan.playlists.map((one) => one.name).sort();
  expect(names).toEqual(['Between', 'House']);
  // Nothing done is no act to go on with.
  expect((await edit(actor, [{ kind: 'playlist', id: 'house', set: { name: 'House' } }])).act).toBeUndefined();
  // Nor is what took back.
  const { act: taken } = await edit(actor, add('Fourth'));
  await undo(actor, 'undo');
  const [back] = await rows<{ act: string }>('SELECT act FROM changes WHERE takes_back = $1', [taken]);
  await expect(edit(actor, add('Fifth'), { goesOn: back?.act })).rejects.toMatchObject({ status: 422 });
});

test('an act of several edits is taken back whole, also one that removes', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const { plan: before } = await draftPlan(actor);
  await edit(actor, [
    { kind: 'screen', id: 'hall', remove: true },
    { kind: 'screen', id: 'deck', remove: true },
    { kind: 'site', id: 'quay', remove: true },
  ]);
  expect((await undo(actor, 'undo')).about).toBe('“Hall” and 2 more');
  expect((await draftPlan(actor)).plan).toEqual(before);
});

test('each person takes back what is theirs, and never over what another has said since', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const other = await addPerson(actor.networkId, {
    name: 'Other',
    email: 'other@example.org',
    password: 'a long password',
  });
  expect(await undo(other, 'undo')).toMatchObject({ about: null, changes: [] });
  await edit(actor, [{ kind: 'playlist', add: { name: 'Mine', items: [] } }]);
  await rename(actor, 'Mine');
  await rename(other, 'Theirs');
  await expect(undo(actor, 'undo')).rejects.toMatchObject({
    status: 409,
    message: expect.stringContaining('screen “Theirs” has been changed by someone since'),
  });
  expect(await nameOf(actor)).toBe('Theirs');
  // The act that stood in the way is given up: the next undo goes further back.
  expect((await undo(actor, 'undo')).about).toBe('“Mine”');
  expect((await draftPlan(actor)).plan.playlists.map(({ id }) => id)).toEqual(['house']);
});

test('an undo takes back its own fields: what another made of other fields of the same thing stays', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const other = await addPerson(actor.networkId, {
    name: 'Otto',
    email: 'otto@example.org',
    password: 'a long password',
  });
  await rename(actor, 'Sun deck');
  await edit(other, [{ kind: 'screen', id: 'deck', set: { width: 720 } }]);
  expect((await undo(actor, 'undo')).about).toBe('“Sun deck”');
  expect((await draftPlan(actor)).plan.screens.find(({ id }) => id === 'deck')).toMatchObject({
    name: 'Deck',
    width: 720,
  });
});

test('two undos at once take two acts back, not one twice', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  for (const name of ['A', 'B']) await rename(actor, name);
  const both = await Promise.all([undo(actor, 'undo'), undo(actor, 'undo')]);
  expect(both.map(({ about }) => about).sort()).toEqual(['“A”', '“B”']);
  expect(await nameOf(actor)).toBe('Deck');
});

test('a removed media file comes back with its files', async () => {
  const actor = await newNetwork();
  const [asset, thumbnail, original] = ['a', 'b', 'c'].map((digit) => digit.repeat(64)) as [string, string, string];
  for (const sha256 of [asset, thumbnail, original])
    await rows("INSERT INTO files (sha256, bytes, type) VALUES ($1, 10, 'image/webp')", [sha256]);
  const document = {
    ...{ name: 'Poster', kind: 'image', width: 10, height: 10, bytes: 10, added: '2026-01-01T00:00:00Z' },
    ...{ sha256: asset, type: 'image/webp' },
  };
  await transaction((within) =>
    editWithin(
      actor,
      [
        {
          kind: 'media',
          id: 'poster',
          add: document,
          files: { originalSha256: original, thumbnailSha256: thumbnail, codec: null },
        },
      ],
      within,
    ),
  );
  const filed = () => MediaFilesRow.findOne({ where: { networkId: actor.networkId }, raw: true, rejectOnEmpty: true });
  const before = [(await draftPlan(actor)).plan.media, { ...(await filed()), mediaId: null }];
  await edit(actor, [{ kind: 'media', id: 'poster', remove: true }]);
  await undo(actor, 'undo');
  expect([(await draftPlan(actor)).plan.media, { ...(await filed()), mediaId: null }]).toEqual(before);
  // Its arrival was the library's work, no act of a person's: there is nothing before it.
  expect((await undo(actor, 'undo')).about).toBeNull();
});

test('what is older than a day stays', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  await rename(actor, 'A');
  await rows("UPDATE changes SET at = at - interval '25 hours' WHERE network_id = $1", [actor.networkId]);
  expect((await undo(actor, 'undo')).about).toBeNull();
  expect(await nameOf(actor)).toBe('A');
});
