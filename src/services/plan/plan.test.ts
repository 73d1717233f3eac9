import { readFileSync } from 'node:fs';
import { ChangeRow, MediaRow, SiteRow, rows } from '@/database';
import fc from 'fast-check';
import { randomPlan, runs } from '@/core/tests/random-plan';
import { canonicalJson, readPlan, type Plan } from '@/core';
import { FILMS, PICTURES } from '@/demo/media';
import { demoPlan } from '@/demo/plan';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { draftPlan, edit, importPlan, lastChange } from '.';

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
  const { ids } = await edit(actor, [{ kind: 'booking', document: booking }]);
  expect(ids).toEqual(['morning']);
  await edit(actor, [{ kind: 'booking', id: 'morning', document: { ...booking, priority: 5 } }]);
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
  const result = await edit(actor, [{ kind: 'playlist', id: 'house', document: { name: 'House', items: [] } }]);
  expect(result).toEqual({ change: before, changes: [], ids: ['house'] });
});

test('several edits are all made, or none', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const before = (await draftPlan(actor)).plan;
  await expect(
    edit(actor, [
      { kind: 'playlist', document: { name: 'Another', items: [] } },
      { kind: 'booking', document: { ...booking, content: { playlist: 'gone' } } },
    ]),
  ).rejects.toMatchObject({
    status: 422,
    problems: [{ path: '/content/playlist', message: expect.stringContaining('gone') }],
  });
  expect((await draftPlan(actor)).plan).toEqual(before);
});

test('an id stays when the name changes, and a second thing of a name gets an id of its own', async () => {
  const actor = await newNetwork();
  const made = async (name: string) =>
    (await edit(actor, [{ kind: 'playlist', document: { name, items: [] } }])).ids[0];
  expect(await made('Offers & más')).toBe('offers-mas');
  await edit(actor, [{ kind: 'playlist', id: 'offers-mas', document: { name: 'Deals', items: [] } }]);
  expect(await made('Offers, más')).toBe('offers-mas-2');
  await expect(made('DEALS')).rejects.toMatchObject({ status: 409, message: expect.stringContaining('another name') });
});

test('what is still used is not removed, and says by what', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  await edit(actor, [{ kind: 'booking', document: booking }]);
  await expect(edit(actor, [{ kind: 'playlist', id: 'house', document: null }])).rejects.toMatchObject({
    status: 409,
    message: 'This playlist is still used by booking "Morning": take it out there first.',
  });
});

test('a playlist can not come to contain itself', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  await edit(actor, [{ kind: 'playlist', id: 'outer', document: { name: 'Outer', items: [{ playlist: 'house' }] } }]);
  await expect(
    edit(actor, [{ kind: 'playlist', id: 'house', document: { name: 'House', items: [{ playlist: 'outer' }] } }]),
  ).rejects.toMatchObject({
    status: 422,
    problems: expect.arrayContaining([expect.objectContaining({ path: '/items/0/playlist' })]),
  });
});

test('two people who change the same thing: the second is told, and nothing is lost', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const { change: basedOn } = await draftPlan(actor);
  await edit(actor, [
    { kind: 'screen', id: 'hall', basedOn, document: { name: 'Great hall', site: 'quay', width: 1920, height: 1080 } },
  ]);
  const late = edit(actor, [
    { kind: 'screen', id: 'hall', basedOn, document: { name: 'Small hall', site: 'quay', width: 1920, height: 1080 } },
  ]);
  await expect(late).rejects.toMatchObject({
    status: 409,
    message: expect.stringContaining('changed this screen meanwhile'),
  });
  expect((await draftPlan(actor)).plan.screens.find((one) => one.id === 'hall')?.name).toBe('Great hall');
  // Another object, changed on the same base, is no conflict.
  await edit(actor, [
    { kind: 'screen', id: 'deck', basedOn, document: { name: 'Sun deck', site: 'quay', width: 1080, height: 1920 } },
  ]);
});

test('two edits at once take turns', async () => {
  const actor = await newNetwork();
  const names = Array.from({ length: 12 }, (_, i) => `List ${i}`);
  await Promise.all(names.map((name) => edit(actor, [{ kind: 'playlist', document: { name, items: [] } }])));
  expect((await draftPlan(actor)).plan.playlists).toHaveLength(12);
});

test('the database itself refuses what would not hold together', async () => {
  const actor = await newNetwork();
  const other = await newNetwork();
  await newPlan(actor);
  const site = await SiteRow.findOne({ where: { networkId: actor.networkId } });
  const insert = (network: string, width: number, slug = 'x') =>
    rows(
      'INSERT INTO screens (id, network_id, site_id, slug, name, width, height) VALUES (gen_random_uuid(), $1, $2, $4, $4, $3, 10)',
      [network, site?.id, width, slug],
    );
  await expect(insert(actor.networkId, 0)).rejects.toThrow('screens_width_check');
  await expect(insert(actor.networkId, 10, 'Not A Slug')).rejects.toThrow('screens_slug_check');
  await expect(insert(other.networkId, 10)).rejects.toThrow('screens_network_id_site_id_fkey');
  await expect(
    rows("INSERT INTO changes (network_id, kind, object) VALUES ($1, 'site', 'x')", [actor.networkId]),
  ).rejects.toThrow('check');
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
  return { ...demoPlan(), media };
}

const CASES = readFileSync(`${__dirname}/../../core/forecast/cases.jsonl`, 'utf8')
  .split('\n')
  .filter((line) => line !== '');

test('every plan is written to the database and read back with nothing lost', async () => {
  const random = CASES.map((line) => (JSON.parse(line) as { request: { plan: unknown } }).request.plan);
  for (const document of [...random, sampleNetwork()]) {
    const actor = await newNetwork();
    const read = readPlan(document);
    if ('errors' in read) throw new Error(JSON.stringify(read.errors));
    await importPlan(actor, read.plan);
    const instant = (text: string) => new Date(text).toISOString().replace('.000Z', 'Z');
    const expected = {
      ...read.plan,
      media: read.plan.media.map((one) => ({ ...one, added: instant(one.added) })),
      bookings: read.plan.bookings.map((one) => ({ ...one, created: instant(one.created) })),
    };
    expect(settled((await draftPlan(actor)).plan)).toBe(settled(expected));
  }
}, 120_000);

test('random plans take the place of each other whole, and what is read twice changes nothing', async () => {
  const actor = await newNetwork();
  await fc.assert(
    fc.asyncProperty(randomPlan, async (random) => {
      await importPlan(actor, random.document);
      const { plan } = await draftPlan(actor);
      expect(settled(plan)).toBe(settled(random.plan));
      // What was read once and is read again changes nothing, and leaves no trace.
      const before = await lastChange(actor.networkId);
      expect((await importPlan(actor, plan)).changes).toEqual([]);
      expect(await lastChange(actor.networkId)).toBe(before);
    }),
    runs(15),
  );
}, 120_000);

test('reading a plan file makes the network equal to it: what is not in it goes', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  await edit(actor, [{ kind: 'booking', document: booking }]);
  const { plan } = await draftPlan(actor);
  const smaller = { ...plan, bookings: [], playlists: [], screens: plan.screens.filter((one) => one.id === 'deck') };
  await importPlan(actor, smaller);
  expect((await draftPlan(actor)).plan).toEqual(smaller);
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
  await MediaRow.create({
    networkId: actor.networkId,
    slug: 'flag',
    name: 'Flag',
    kind: 'image',
    width: 10,
    height: 10,
    bytes: 5,
    added: new Date('2026-01-01T00:00:00Z'),
  } as never);
  const { plan } = await draftPlan(actor);
  const [flag] = plan.media;
  await expect(edit(actor, [{ kind: 'media', id: 'flag', document: { ...flag, width: 20 } }])).rejects.toMatchObject({
    status: 422,
    problems: [{ path: '/width' }],
  });
  await edit(actor, [{ kind: 'media', id: 'flag', document: { ...flag, name: 'House flag' } }]);
});
