import pg from 'pg';
import { ChangeRow, rows, transaction } from '@/database';
import fc from 'fast-check';
import { randomPlan } from '@/core/tests/random-plan';
import { canonicalJson } from '@/core/edition';
import { changed, patchesSchema, planFile, readPlan, type Plan } from '@/core/plan';
import { FILMS, PICTURES, SOUNDS } from '@/demo/media';
import { demoPlan } from '@/demo/plan';
import { addPerson, type Actor } from '../people';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { draftPlan, edit, importPlan, lastChange, lookAtPlan, takeTurn, undo } from '.';
import { runs } from '@/core/tests/runs';
import { readRows } from '@/core/tests/rows';

useDatabase();

const booking = {
  name: 'Morning',
  content: { playlist: 'house' },
  where: 'hall',
  created: '2026-01-01T00:00:00Z',
  when: {},
};

test('an edit writes the object and one change, with what was before and after', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const { ids } = await edit(actor, [{ kind: 'booking', add: booking }]);
  expect(ids).toEqual(['morning']);
  await edit(actor, [{ kind: 'booking', id: 'morning', set: { ...booking, priority: 5 } }]);
  const trail = await ChangeRow.findAll({
    where: { networkId: actor.networkId, kind: 'booking' },
    order: [['id', 'ASC']],
  });
  expect(
    trail.map(({ before, after, personId }) => [
      (before as Plan['bookings'][0] | null)?.priority,
      (after as Plan['bookings'][0]).priority,
      personId,
    ]),
  ).toEqual([
    [undefined, 3, actor.personId],
    [3, 5, actor.personId],
  ]);
});

test('an edit that changes nothing leaves no change', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const before = await lastChange(actor.networkId);
  const result = await edit(actor, [{ kind: 'playlist', id: 'house', set: { name: 'House', items: [] } }]);
  expect(result).toEqual({ change: before, previous: before, changes: [], ids: ['house'], patches: [], media: [] });
});

test('several edits are all made, or none', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const before = (await draftPlan(actor)).plan;
  await expect(
    edit(actor, [
      { kind: 'playlist', add: { name: 'Another', items: [] } },
      { kind: 'booking', add: { ...booking, content: { playlist: 'gone' } } },
    ]),
  ).rejects.toMatchObject({
    status: 422,
    problems: [{ path: '/content/playlist', message: expect.stringContaining('gone') }],
  });
  expect((await draftPlan(actor)).plan).toEqual(before);
});

test('an id stays when the name changes, and a second thing of a name gets an id of its own', async () => {
  const actor = await newNetwork();
  const made = async (name: string) => (await edit(actor, [{ kind: 'playlist', add: { name, items: [] } }])).ids[0];
  expect(await made('Offers & más')).toBe('offers-mas');
  await edit(actor, [{ kind: 'playlist', id: 'offers-mas', set: { name: 'Deals', items: [] } }]);
  expect(await made('Offers, más')).toBe('offers-mas-2');
  await expect(made('DEALS')).rejects.toMatchObject({ status: 409, message: expect.stringContaining('another name') });
});

test('a name in any script makes an id that can be read', async () => {
  const actor = await newNetwork();
  const made = async (name: string) => (await edit(actor, [{ kind: 'playlist', add: { name, items: [] } }])).ids[0];
  expect(await made('Łódź')).toBe('lodz');
  expect(await made('Причал')).toBe('prichal');
  expect(await made('Δελφίνι')).toBe('delfini');
  expect(await made('渡轮码头')).toBe('du-lun-ma-tou');
  expect(await made('★')).toBe('item');
  expect(await made('✦')).toBe('item-2');
});

test('names are exchanged in one go; a name that is taken leaves all as it was', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const names = async () => (await draftPlan(actor)).plan.screens.map(({ id, name }) => `${id} ${name}`);
  await edit(actor, [
    { kind: 'screen', id: 'hall', set: { name: 'Deck' } },
    { kind: 'screen', id: 'deck', set: { name: 'Hall' } },
  ]);
  expect(await names()).toEqual(['deck Hall', 'hall Deck']);
  await expect(
    edit(actor, [
      { kind: 'screen', id: 'hall', set: { width: 5 } },
      { kind: 'screen', id: 'deck', set: { name: 'DECK' } },
    ]),
  ).rejects.toMatchObject({ status: 409, problems: [{ path: '/name' }] });
  expect((await draftPlan(actor)).plan.screens.find(({ id }) => id === 'hall')?.width).toBe(1920);
});

test('what is no patch is refused, and nothing is made of it', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const before = await lastChange(actor.networkId);
  for (const wrong of [
    [],
    [{ kind: 'planet', add: {} }],
    [{ kind: 'screen', id: 'hall' }],
    [{ kind: 'screen', id: 'hall', set: { width: 5 }, files: {} }],
    [{ kind: 'screen', id: 'hall', remove: false }],
    [{ kind: 'playlist', id: 'house', set: {}, entries: { items: [{ id: 'a', after: 3 }] } }],
  ])
    expect(patchesSchema.safeParse(wrong).success).toBe(false);
  await expect(edit(actor, [{ kind: 'network', id: 'network', remove: true }])).rejects.toMatchObject({ status: 422 });
  await expect(edit(actor, [{ kind: 'screen', id: 'hall', set: { colour: 'red' } }])).rejects.toMatchObject({
    status: 422,
    problems: [{ path: '/colour', message: expect.stringContaining('unknown here') }],
  });
  expect(await lastChange(actor.networkId)).toBe(before);
});

test('what is still used is not removed, and says by what', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  await edit(actor, [{ kind: 'booking', add: booking }]);
  await expect(edit(actor, [{ kind: 'playlist', id: 'house', remove: true }])).rejects.toMatchObject({
    status: 409,
    message: 'This playlist is still used by booking “Morning”. Remove it there first.',
  });
});

test('what playlists come to with all that is nested is limited, also where the innermost one grows', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const twice = (id: string) => [{ playlist: id }, { playlist: id }];
  const collect = (count: number) => Array.from({ length: count }, (_, i) => ({ collect: `t${i}` }));
  await edit(actor, [
    { kind: 'playlist', id: 'p0', add: { name: 'P0', items: collect(1) } },
    ...Array.from({ length: 8 }, (_, i) => ({
      kind: 'playlist' as const,
      id: `p${i + 1}`,
      add: { name: `P${i + 1}`, items: twice(`p${i}`) },
    })),
  ]);
  const before = await lastChange(actor.networkId);
  // 2^8 times 20 is 5 120.
  await expect(
    edit(actor, [{ kind: 'playlist', id: 'p0', set: { name: 'P0', items: collect(20) } }]),
  ).rejects.toMatchObject({
    status: 422,
    message: expect.stringMatching(/^This is in the playlist “P8”\. With nested playlists .* 5000 entries/),
  });
  await expect(
    edit(actor, [
      { kind: 'playlist', id: 'p9', add: { name: 'P9', items: twice('p8') } },
      { kind: 'playlist', id: 'p10', add: { name: 'P10', items: [{ playlist: 'p9' }] } },
    ]),
  ).rejects.toMatchObject({ status: 422, message: expect.stringContaining('10 levels deep at most') });
  expect(await lastChange(actor.networkId)).toBe(before);
  await edit(actor, [{ kind: 'playlist', id: 'p0', set: { name: 'P0', items: collect(19) } }]);
});

test('a playlist can not come to contain itself', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  await edit(actor, [{ kind: 'playlist', id: 'outer', add: { name: 'Outer', items: [{ playlist: 'house' }] } }]);
  await expect(
    edit(actor, [{ kind: 'playlist', id: 'house', set: { name: 'House', items: [{ playlist: 'outer' }] } }]),
  ).rejects.toMatchObject({
    status: 422,
    problems: expect.arrayContaining([expect.objectContaining({ path: '/items/0/playlist' })]),
  });
});

describe('two people at once', () => {
  const hall = async (actor: Actor) => (await draftPlan(actor)).plan.screens.find((one) => one.id === 'hall');
  const both = async () => {
    const actor = await newNetwork();
    await newPlan(actor);
    const other = await addPerson(actor.networkId, {
      name: 'Otto Brekke',
      email: `otto-${actor.networkId}@example.org`,
      password: 'a long password',
    });
    return [actor, other] as const;
  };

  test('different fields of one screen: both keep their words', async () => {
    const [ida, otto] = await both();
    await edit(otto, [{ kind: 'screen', id: 'hall', set: { name: 'Great hall' }, was: { name: 'Hall' } }]);
    await edit(ida, [{ kind: 'screen', id: 'hall', set: { width: 1280 }, was: { width: 1920 } }]);
    expect(await hall(ida)).toMatchObject({ name: 'Great hall', width: 1280, height: 1080, tags: ['hall'] });
  });

  test('the same field: the later one is told, with both values and the name, and nothing is lost', async () => {
    const [ida, otto] = await both();
    await edit(otto, [{ kind: 'screen', id: 'hall', set: { name: 'Great hall' }, was: { name: 'Hall' } }]);
    const late = edit(ida, [{ kind: 'screen', id: 'hall', set: { name: 'Small hall' }, was: { name: 'Hall' } }]);
    await expect(late).rejects.toMatchObject({
      status: 409,
      message: 'Otto Brekke changed “name” to “Great hall” while you were editing. Yours is “Small hall”.',
      problems: [{ path: '/name', theirs: { value: 'Great hall', words: '“Great hall”', by: 'Otto Brekke' } }],
    });
    expect((await hall(ida))?.name).toBe('Great hall');
  });

  test('the same field to the same value is no conflict, and leaves no second change', async () => {
    const [ida, otto] = await both();
    const same = { kind: 'screen', id: 'hall', set: { name: 'Great hall' }, was: { name: 'Hall' } } as const;
    await edit(otto, [same]);
    expect((await edit(ida, [same])).changes).toEqual([]);
  });

  test('a field that one takes away and another changes is told', async () => {
    const [ida, otto] = await both();
    await edit(otto, [{ kind: 'screen', id: 'hall', set: { tags: null }, was: { tags: ['hall'] } }]);
    await expect(
      edit(ida, [{ kind: 'screen', id: 'hall', set: { tags: ['hall', 'quay'] }, was: { tags: ['hall'] } }]),
    ).rejects.toMatchObject({
      status: 409,
      message: expect.stringContaining('changed “tags” to none while you were editing'),
    });
  });

  test('who removes what another has changed meanwhile is told', async () => {
    const [ida, otto] = await both();
    const before = await hall(ida);
    await edit(otto, [{ kind: 'screen', id: 'hall', set: { name: 'Great hall' } }]);
    await expect(edit(ida, [{ kind: 'screen', id: 'hall', remove: true, was: before }])).rejects.toMatchObject({
      status: 409,
    });
    expect((await hall(ida))?.name).toBe('Great hall');
  });

  test('items of one playlist: each by its own id, wherever it stands by then', async () => {
    const [ida, otto] = await both();
    const items = ['cafe', 'deck', 'quay'].map((collect) => ({ collect }));
    await edit(ida, [{ kind: 'playlist', id: 'house', set: { items } }]);
    const list = async () => (await draftPlan(ida)).plan.playlists[0] as Plan['playlists'][0];
    const seen = await list();
    const [first, second, third] = seen.items;
    if (!first || !second || !third) throw new Error('three items were written');
    const timedItem = (durationMs: number) => ({ ...third, durationMs }) as typeof third;
    // Otto moves the first to the end while Ida gives the third 20 s: both are made.
    const moved = changed('playlist', seen, { items: [second, third, first] });
    const timed = changed('playlist', seen, { items: [first, second, timedItem(20_000)] });
    await edit(otto, moved);
    await edit(ida, timed);
    expect((await list()).items).toEqual([second, { ...third, durationMs: 20_000 }, first]);
    // The same item's same field, by two: told, with the item's name.
    const otherwise = changed('playlist', seen, { items: [first, second, timedItem(5000)] });
    await expect(edit(otto, otherwise)).rejects.toMatchObject({
      status: 409,
      problems: [{ path: `/${third.id ?? ''}/durationMs`, theirs: { value: 20_000, words: expect.any(String) } }],
      message: expect.stringContaining('changed “all quay” while you were editing: duration is 20 s. Yours is 5 s'),
    });
  });
});

test('an edit takes as many statements for 400 screens as for two, and at most twelve', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const counted = async (work: () => Promise<unknown>) => {
    const spy = jest.spyOn(pg.Client.prototype, 'query');
    try {
      await work();
      return spy.mock.calls.length;
    } finally {
      spy.mockRestore();
    }
  };
  const book = (name: string) => () =>
    edit(actor, [{ kind: 'booking', add: { ...booking, name, when: { windows: [['06:00', '09:00']] } } }]);
  const few = await counted(book('Few'));
  await edit(
    actor,
    Array.from({ length: 400 }, (_, i) => ({
      kind: 'screen' as const,
      add: { name: `Screen ${i}`, site: 'quay', width: 10, height: 10 },
    })),
  );
  expect(await counted(book('Many'))).toBe(few);
  expect(few).toBeLessThanOrEqual(12);
});

test('two edits at once take turns', async () => {
  const actor = await newNetwork();
  const names = Array.from({ length: 12 }, (_, i) => `List ${i}`);
  await Promise.all(names.map((name) => edit(actor, [{ kind: 'playlist', add: { name, items: [] } }])));
  expect((await draftPlan(actor)).plan.playlists).toHaveLength(12);
});

test('a network whose edits wait leaves connections to the others', async () => {
  const [busy, other] = [await newNetwork(), await newNetwork()];
  await newPlan(busy);
  await newPlan(other);
  const rename = (actor: Actor, name: string) => edit(actor, [{ kind: 'screen', id: 'hall', set: { name } }]);
  let edits: Promise<unknown>[] = [];
  await transaction(async (within) => {
    // As while it is published: its turn is taken.
    await takeTurn(busy.networkId, within);
    edits = Array.from({ length: 30 }, (_, i) => rename(busy, `Hall ${i}`));
    for (let i = 0; i < 20; i++) await rename(other, `Other hall ${i}`);
    const waiting = await rows(
      "SELECT 1 FROM pg_stat_activity WHERE wait_event_type = 'Lock' AND datname = current_database()",
    );
    expect(waiting.length).toBeLessThanOrEqual(1);
  });
  await Promise.all(edits);
  expect((await draftPlan(busy)).plan.screens.find((one) => one.id === 'hall')?.name).toBe('Hall 29');
});

test('the database itself refuses what would not hold together', async () => {
  const [actor, other] = [await newNetwork(), await newNetwork()];
  await newPlan(actor);
  const insert = (slug: string, name = 'X', document: object = { name }) =>
    rows(
      `INSERT INTO plan_objects (id, network_id, kind, slug, name, document, format) VALUES (gen_random_uuid(), $1, 'screen', $2, $3, $4, 2)`,
      [actor.networkId, slug, name, JSON.stringify(document)],
    );
  const link = (network: string, from: string, to: string) =>
    rows(`INSERT INTO plan_links VALUES ($1, 'screen', $2, 'site', $3)`, [network, from, to]);
  await expect(insert('Not A Slug')).rejects.toThrow('plan_objects_slug_check');
  await expect(insert('x', ' ')).rejects.toThrow('plan_objects_name_check');
  await expect(insert('x', 'X', { name: 'Y' })).rejects.toThrow('plan_objects_check');
  await expect(insert('hall')).rejects.toMatchObject({ name: 'SequelizeUniqueConstraintError' });
  await expect(link(actor.networkId, 'hall', 'nowhere')).rejects.toThrow('plan_links_target');
  await expect(link(other.networkId, 'hall', 'quay')).rejects.toThrow('plan_links_network_id_from_kind_from_slug_fkey');
  await expect(
    rows("DELETE FROM plan_objects WHERE network_id = $1 AND kind = 'site'", [actor.networkId]),
  ).rejects.toThrow('plan_links_target');
  await expect(
    rows("INSERT INTO changes (network_id, kind, object, format) VALUES ($1, 'site', 'x', 2)", [actor.networkId]),
  ).rejects.toThrow('check');
});

test('a document that names bytes of another network, or of none, is refused alike', async () => {
  const [ours, theirs] = [await newNetwork(), await newNetwork()];
  const [asset, nobodys] = ['d'.repeat(64), 'e'.repeat(64)];
  const poster = { name: 'Poster', kind: 'image', width: 9, height: 9, bytes: 9, added: '2026-01-01T00:00:00Z' };
  await rows("INSERT INTO files (sha256, bytes, type) VALUES ($1, 9, 'image/png')", [asset]);
  const files = { originalSha256: asset, thumbnailSha256: asset, codec: null };
  const add = (sha256: string) => ({ ...poster, sha256, type: 'image/png' });
  await edit(theirs, [{ kind: 'media', add: add(asset), files }]);
  for (const sha256 of [asset, nobodys])
    await expect(edit(ours, [{ kind: 'media', add: add(sha256) }])).rejects.toMatchObject({
      status: 422,
      message: 'This file isn’t in your library. Upload it, or leave its SHA-256 out.',
    });
  // The network that has them may name them again, as a plan file does that is read back.
  await edit(theirs, [{ kind: 'media', id: 'again', add: add(asset) }]);
});

/** Every object in a settled order, so that two plans can be compared whole. */
const settled = (plan: Plan) =>
  canonicalJson(
    Object.fromEntries(
      Object.entries(plan).map(([key, value]) => [
        key,
        Array.isArray(value) ? [...value].sort((a, b) => (a.id < b.id ? -1 : 1)) : value,
      ]),
    ),
  );

/** The sample network, with media that were measured elsewhere. */
function sampleNetwork(): object {
  const media = [...PICTURES, ...FILMS].map(({ id, name, tags }) => ({
    id,
    name,
    tags: [...tags],
    kind: 'image',
    width: 1920,
    height: 1080,
    bytes: 1000,
    added: '2026-01-02T08:00:00Z',
  }));
  const sounds = SOUNDS.map(({ id, name, tags, seconds }) => ({
    ...{ id, name, tags: [...tags], kind: 'sound', durationMs: seconds * 1000, bytes: 1000 },
    added: '2026-01-02T08:00:00Z',
  }));
  return { ...demoPlan(), media: [...media, ...sounds] };
}

const CASES = readRows<{ request: { plan: unknown } }>('forecast/cases.jsonl');

test('every plan is written to the database and read back with nothing lost', async () => {
  const random = CASES.map(({ request }) => request.plan);
  for (const document of [...random, sampleNetwork()]) {
    const actor = await newNetwork();
    const read = readPlan(document);
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    await importPlan(actor, read.value);
    expect(settled(planFile((await draftPlan(actor)).plan))).toBe(settled(read.value));
  }
}, 120_000);

test('random plans take the place of each other whole, and what is read twice changes nothing', async () => {
  const actor = await newNetwork();
  await fc.assert(
    fc.asyncProperty(randomPlan, async (random) => {
      await importPlan(actor, random.document);
      const { plan } = await draftPlan(actor);
      expect(settled(planFile(plan))).toBe(settled(random.plan));
      // What was read once and is read again changes nothing, and leaves no trace.
      const before = await lastChange(actor.networkId);
      expect((await importPlan(actor, planFile(plan))).changes).toEqual([]);
      expect(await lastChange(actor.networkId)).toBe(before);
    }),
    runs(15),
  );
}, 120_000);

test('reading a plan file makes the network equal to it: what is not in it goes', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  await edit(actor, [{ kind: 'booking', add: booking }]);
  const { plan } = await draftPlan(actor);
  const smaller = { ...plan, bookings: [], playlists: [], screens: plan.screens.filter((one) => one.id === 'deck') };
  await importPlan(actor, smaller);
  expect((await draftPlan(actor)).plan).toEqual(smaller);
});

test('what a plan file would do is shown before it is done; a plan that was changed since refuses it; it is taken back as one act', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const { plan, change } = await draftPlan(actor);
  const screens = plan.screens.flatMap((one) =>
    one.id === 'deck' ? [] : [{ ...one, name: 'Great hall', width: 1280 }],
  );
  const document = { ...planFile(plan), screens, bookings: [{ ...booking, id: 'morning' }] };
  expect(await lookAtPlan(actor, document)).toEqual({
    ...{ change, count: 3 },
    changes: [
      { kind: 'screen', id: 'deck', name: 'Deck', what: 'removed', sentences: [] },
      {
        ...{ kind: 'screen', id: 'hall', name: 'Great hall', what: 'changed' },
        sentences: ['name “Great hall”, was “Hall”', 'width 1280 px, was 1920 px'],
      },
      { kind: 'booking', id: 'morning', name: 'Morning', what: 'added', sentences: [] },
    ],
  });
  expect((await draftPlan(actor)).plan).toEqual(plan);
  await edit(actor, [{ kind: 'playlist', id: 'house', set: { name: 'Our house' } }]);
  await expect(importPlan(actor, document, change)).rejects.toMatchObject({ status: 409 });
  const { change: seen } = await lookAtPlan(actor, document);
  await importPlan(actor, document, seen);
  expect((await draftPlan(actor)).plan.screens).toEqual(screens);
  await undo(actor, 'undo');
  expect((await draftPlan(actor)).plan.screens).toEqual(plan.screens);
});

test('a plan file with mistakes changes nothing', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const before = await lastChange(actor.networkId);
  await expect(importPlan(actor, { ...demoPlan(), media: [] })).rejects.toMatchObject({
    status: 422,
    problems: expect.arrayContaining([expect.objectContaining({ path: '/playlists/1/items/0/media' })]),
  });
  expect(await lastChange(actor.networkId)).toBe(before);
});

test('what is measured of a file can not be edited', async () => {
  const actor = await newNetwork();
  await edit(actor, [
    {
      kind: 'media',
      add: { name: 'Flag', kind: 'image', width: 10, height: 10, bytes: 5, added: '2026-01-01T00:00:00Z' },
    },
  ]);
  const { plan } = await draftPlan(actor);
  const [flag] = plan.media;
  await expect(edit(actor, [{ kind: 'media', id: 'flag', set: { ...flag, width: 20 } }])).rejects.toMatchObject({
    status: 422,
    problems: [{ path: '/width' }],
  });
  await edit(actor, [{ kind: 'media', id: 'flag', set: { ...flag, name: 'House flag' } }]);
});

test('an edit waits for the turn of another process, and sees what that has done', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  let done = false;
  let edited = Promise.resolve();
  await transaction(async (within) => {
    await takeTurn(actor.networkId, within);
    edited = edit(actor, [{ kind: 'playlist', id: 'house', set: { name: 'Later' } }]).then(() => void (done = true));
    // Until it stands before the lock, or has gone past it.
    for (let held = 0; held === 0 && !done;)
      held = (
        await rows(`SELECT 1 FROM pg_locks WHERE NOT granted AND database = (SELECT oid FROM pg_database WHERE datname = current_database())
          OR NOT granted AND locktype = 'transactionid'`)
      ).length;
    expect(done).toBe(false);
  });
  await edited;
});
