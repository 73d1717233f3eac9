import { forecast, programsOf } from '@/core/forecast';
import { HOUR, MINUTE } from '@/core/instant';
import { planFile } from '@/core/plan';
import type { Role } from '@/core/roles';
import { randomUUID } from 'node:crypto';
import { rows } from '@/database';
import { processUpload } from '../library';
import { addPerson, removePerson, setRole, trail, type Actor } from '../people';
import { draftPlan, edit, importPlan, lastChange } from '../plan';
import { flushHeartbeats, heartbeat, type Player } from '../screens';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { picture, send } from '../tests/files';
import { pairedPlayer } from '../tests/players';
import {
  allClear,
  docket,
  drillTakeover,
  editions,
  fireTakeover,
  firingScreens,
  firings,
  movePlanned,
  planEdition,
  publishAgain,
  publishDue,
  publishEdition,
  publishPlanned,
  publishedPlan,
  putOn,
  setFirers,
  takeovers,
} from '.';

useDatabase();

const NOW = Math.floor(Date.now() / 1000) * 1000;
const DAILY = { windows: [['04:00', '12:00'] as [string, string]] };

/** A network whose first edition is out, with a takeover that is prepared. */
async function network(prepared: object = { words: 'Call the harbour', lasts: 30 * MINUTE }): Promise<Actor> {
  const actor = await newNetwork();
  await newPlan(actor);
  const received = await send(actor, 'Gale.jpg', await picture(300, 200, '#AA3311'));
  if ('upload' in received) await processUpload(received.upload.id);
  await edit(actor, [
    {
      ...{ kind: 'booking', id: 'gale' },
      add: {
        ...{ name: 'Gale', content: { media: 'gale' }, where: 'hall', priority: 5, takeover: true, onHold: true },
        ...{ created: '2026-01-01T00:00:00Z', when: DAILY, prepared },
      },
    },
  ]);
  await publishEdition(actor, await lastChange(actor.networkId));
  return actor;
}

const booking = async (actor: Actor) => (await draftPlan(actor)).plan.bookings.find(({ id }) => id === 'gale');
const waiting = async (actor: Actor) => (await docket(actor)).entries.map(({ kind, id }) => `${kind} ${id}`).sort();
const refused = (work: Promise<unknown>) =>
  work.then(
    () => null,
    (error: Error) => error.message,
  );
/** What a screen shows at an instant, by the newest edition. */
async function showing(actor: Actor, screen: string, at: number): Promise<string | null> {
  const plan = (await publishedPlan(actor))?.plan;
  const program = plan && programsOf(plan).get(screen);
  if (!program) throw new Error(`no ${screen}`);
  return forecast(program, at, at + 1).segments[0]?.id ?? null;
}
const hear = async (player: Player, playing: { id: string | null; source: string; since?: number } | null) => {
  heartbeat(player, {
    ...{ state: 'playing', edition: 1, program: null, download: null, clockOffsetMs: 0, storage: null },
    ...{ errors: [], software: 'test', playing: playing && { media: 'gale', ...playing } },
  });
  await flushHeartbeats();
};

test('fired it is in force at once, for as long as was prepared; cleared it stands on hold as before', async () => {
  const actor = await network();
  const fired = await fireTakeover(actor, 'gale', {}, NOW);
  expect(fired).toMatchObject({
    ...{ booking: 'gale', name: 'Gale', edition: 2, screens: 1, byKey: false, clearedAt: null, showing: 0 },
    ...{ firedAt: new Date(NOW).toISOString(), until: new Date(NOW + 30 * MINUTE).toISOString() },
  });
  expect(fired.firedBy).toMatch(/^Person of/);
  expect(await showing(actor, 'hall', NOW)).toBe('gale');
  expect(await showing(actor, 'hall', NOW + 30 * MINUTE - 1)).toBe('gale');
  expect(await showing(actor, 'hall', NOW + 30 * MINUTE)).not.toBe('gale');
  expect(await showing(actor, 'deck', NOW)).not.toBe('gale');
  expect(await waiting(actor)).toEqual([]);
  const cleared = await allClear(actor, 'gale', {}, NOW + 5 * MINUTE);
  expect(cleared).toMatchObject({ clearedAt: new Date(NOW + 5 * MINUTE).toISOString(), clearedByKey: false });
  expect(await showing(actor, 'hall', NOW + 6 * MINUTE)).not.toBe('gale');
  expect(await booking(actor)).toMatchObject({ onHold: true, when: DAILY });
  expect(await waiting(actor)).toEqual([]);
  expect((await editions(actor)).map(({ note }) => note)).toEqual(['All-clear: Gale', 'Activated: Gale', null]);
  // Given twice, it is answered the same.
  expect(await allClear(actor, 'gale', {}, NOW + HOUR)).toEqual(cleared);
  expect(await editions(actor)).toHaveLength(3);
});

describe('whatever edition is published again', () => {
  it.each([[{ lasts: 30 * MINUTE }], [{}]])(
    'what is in force stays on the glass, and one all-clear ends it (%j)',
    async (prepared) => {
      const actor = await network(prepared);
      await fireTakeover(actor, 'gale', {}, NOW);
      await publishAgain(actor, 1, { now: NOW + MINUTE });
      expect(await showing(actor, 'hall', NOW + 2 * MINUTE)).toBe('gale');
      expect(await refused(fireTakeover(actor, 'gale', {}, NOW + 2 * MINUTE))).toMatch(/^“Gale” is in force already/);
      await allClear(actor, 'gale', {}, NOW + 3 * MINUTE);
      expect(await showing(actor, 'hall', NOW + 4 * MINUTE)).not.toBe('gale');
      expect(await booking(actor)).toMatchObject({ onHold: true, when: DAILY });
    },
  );

  it.each([[{ lasts: 30 * MINUTE }], [{}]])(
    'what was cleared does not come back with an edition of its time (%j)',
    async (prepared) => {
      const actor = await network(prepared);
      const { edition } = await fireTakeover(actor, 'gale', {}, NOW);
      await allClear(actor, 'gale', {}, NOW + MINUTE);
      await publishAgain(actor, edition, { now: NOW + 2 * MINUTE });
      expect(await showing(actor, 'hall', NOW + 3 * MINUTE)).not.toBe('gale');
      expect((await publishedPlan(actor))?.plan.bookings).toMatchObject([{ id: 'gale', onHold: true, when: DAILY }]);
    },
  );
});

test('the all-clear looks at the glass: also where an earlier version of this program has brought one back', async () => {
  const actor = await network({});
  await fireTakeover(actor, 'gale', {}, NOW);
  await rows('UPDATE firings SET cleared_at = fired_at WHERE network_id = $1', [actor.networkId]);
  await allClear(actor, 'gale', {}, NOW + MINUTE);
  expect(await showing(actor, 'hall', NOW + 2 * MINUTE)).not.toBe('gale');
});

test('what is in force is changed by no edit, and a plan file that knows nothing of it leaves it on', async () => {
  const actor = await network({});
  const before = (await draftPlan(actor)).plan;
  await fireTakeover(actor, 'gale', {}, NOW);
  const told = '“Gale” is in force. Give the all-clear first, then change it.';
  expect(await refused(edit(actor, [{ kind: 'booking', id: 'gale', set: { where: 'deck' } }]))).toBe(told);
  expect(await refused(edit(actor, [{ kind: 'booking', id: 'gale', remove: true }]))).toBe(told);
  for (const bookings of [before.bookings, []]) {
    await importPlan(
      actor,
      planFile({ ...before, bookings, network: { ...before.network, name: `Line ${bookings.length}` } }),
    );
    await publishEdition(actor, await lastChange(actor.networkId));
    expect(await showing(actor, 'hall', NOW + MINUTE)).toBe('gale');
  }
  await allClear(actor, 'gale', {}, NOW + MINUTE);
  await edit(actor, [{ kind: 'booking', id: 'gale', set: { where: 'deck' } }]);
});

test('one that lasts until the all-clear does', async () => {
  const actor = await network({});
  expect(await fireTakeover(actor, 'gale', {}, NOW)).toMatchObject({ until: null });
  expect(await showing(actor, 'hall', NOW + 100 * 24 * HOUR)).toBe('gale');
  expect(await refused(fireTakeover(actor, 'gale', {}, NOW + HOUR))).toMatch(/^“Gale” is in force already/);
  await allClear(actor, 'gale', {}, NOW + HOUR);
  expect(await showing(actor, 'hall', NOW + HOUR)).not.toBe('gale');
});

test('what ended by itself is fired again, and cleared as it was prepared', async () => {
  const actor = await network();
  await fireTakeover(actor, 'gale', {}, NOW);
  expect(await refused(fireTakeover(actor, 'gale', {}, NOW + 29 * MINUTE))).toMatch(/in force already/);
  const again = await fireTakeover(actor, 'gale', {}, NOW + HOUR);
  expect(again.until).toBe(new Date(NOW + HOUR + 30 * MINUTE).toISOString());
  expect(await showing(actor, 'hall', NOW + HOUR)).toBe('gale');
  await allClear(actor, 'gale', {}, NOW + HOUR + MINUTE);
  expect(await booking(actor)).toMatchObject({ onHold: true, when: DAILY });
  expect((await firings(actor)).map(({ clearedAt }) => clearedAt !== null)).toEqual([true, false]);
});

test('an unfinished draft does not ride along, and what is planned keeps its time and has the takeover too', async () => {
  const actor = await network({});
  await edit(actor, [{ kind: 'screen', id: 'deck', set: { lightsOut: [{ windows: [['01:00', '02:00']] }] } }]);
  await planEdition(actor, await lastChange(actor.networkId), NOW + HOUR);
  await edit(actor, [{ kind: 'screen', id: 'hall', set: { name: 'Half done' } }]);
  await fireTakeover(actor, 'gale', {}, NOW);
  const out = async () => (await publishedPlan(actor))?.plan.screens.map(({ name, lightsOut }) => [name, !!lightsOut]);
  expect(await out()).toEqual(
    expect.arrayContaining([
      ['Hall', false],
      ['Deck', false],
    ]),
  );
  expect(await waiting(actor)).toEqual(['screen hall']);
  await publishDue(new Date(NOW + HOUR));
  expect(await out()).toEqual(
    expect.arrayContaining([
      ['Hall', false],
      ['Deck', true],
    ]),
  );
  expect(await showing(actor, 'hall', NOW + HOUR)).toBe('gale');
  await allClear(actor, 'gale', {}, NOW + 2 * HOUR);
  expect(await showing(actor, 'hall', NOW + 2 * HOUR)).not.toBe('gale');
  expect(await waiting(actor)).toEqual(['screen hall']);
});

test('under one idempotency key it is fired once, by two who come at once too', async () => {
  const actor = await network();
  const by = { byKey: true, idempotencyKey: 'storm-2026-11-27' };
  const [one, two] = await Promise.all([fireTakeover(actor, 'gale', by, NOW), fireTakeover(actor, 'gale', by, NOW)]);
  expect(two).toEqual(one);
  expect(one.byKey).toBe(true);
  await allClear(actor, 'gale', { byKey: true }, NOW + MINUTE);
  // The same request that comes late fires nothing anew.
  expect((await fireTakeover(actor, 'gale', by, NOW + 2 * MINUTE)).clearedAt).not.toBeNull();
  expect(await firings(actor)).toHaveLength(1);
  await edit(actor, [
    {
      ...{ kind: 'booking', id: 'fog' },
      add: {
        ...{ name: 'Fog', content: { media: 'gale' }, where: 'hall', takeover: true, onHold: true, when: {} },
        created: '2026-01-01T00:00:00Z',
      },
    },
  ]);
  expect(await refused(fireTakeover(actor, 'fog', by, NOW))).toBe(
    'This idempotency key has activated “Gale”. Use another key for another takeover.',
  );
});

test('a drill is seen on the screens that one says, marked, for minutes; what is prepared stays so', async () => {
  const actor = await network({ words: 'Call the harbour' });
  const drill = await drillTakeover(actor, 'gale', 'deck', {}, NOW);
  expect(drill).toMatchObject({ name: 'Gale, drill', drill: true, screens: 1 });
  expect(drill.until).toBe(new Date(NOW + 10 * MINUTE).toISOString());
  expect(await showing(actor, 'deck', NOW)).toBe(drill.booking);
  expect(await showing(actor, 'hall', NOW)).not.toBe(drill.booking);
  const plan = (await publishedPlan(actor))?.plan;
  const deck = plan && programsOf(plan).get('deck');
  expect(deck?.bookings).toEqual([expect.objectContaining({ id: drill.booking, drill: true, takeover: true })]);
  expect(await booking(actor)).toMatchObject({ onHold: true, when: DAILY });
  expect(await waiting(actor)).toEqual([]);
  // Beside it the real one can be fired.
  await fireTakeover(actor, 'gale', {}, NOW + MINUTE);
  await allClear(actor, drill.booking, {}, NOW + 2 * MINUTE);
  expect((await draftPlan(actor)).plan.bookings.map(({ id }) => id)).toEqual(['gale']);
  expect((await publishedPlan(actor))?.plan.bookings.map(({ id }) => id)).toEqual(['gale']);
  expect(await showing(actor, 'hall', NOW + 3 * MINUTE)).toBe('gale');
  expect(await waiting(actor)).toEqual([]);
  expect(await refused(drillTakeover(actor, 'gale', 'deck', {}, NOW))).toMatch(/“Gale” isn’t a prepared takeover./);
  await allClear(actor, 'gale', {}, NOW + 3 * MINUTE);
  expect(await refused(drillTakeover(actor, 'gale', 'nowhere', {}, NOW))).toMatch(/^None of these screens/);
  expect(await refused(drillTakeover(actor, 'gale', 'deck and', {}, NOW))).not.toBeNull();
  expect((await firings(actor)).map((one) => one.drill)).toEqual([false, true]);
});

test('what isn’t a prepared takeover gets a message, and another network has none of it', async () => {
  const actor = await network();
  const other = await network();
  await edit(actor, [
    {
      ...{ kind: 'booking', id: 'plain' },
      add: { name: 'Plain', content: { media: 'gale' }, where: 'hall', created: '2026-01-01T00:00:00Z', when: {} },
    },
    { kind: 'booking', id: 'gale', set: { where: 'nowhere' } },
  ]);
  expect(await refused(fireTakeover(actor, 'plain', {}, NOW))).toMatch(/“Plain” isn’t a prepared takeover./);
  expect(await refused(fireTakeover(actor, 'gale', {}, NOW))).toMatch(/^None of the screens of “Gale”/);
  expect(await refused(fireTakeover(actor, 'none', {}, NOW))).toMatch(/Your network has no such takeover./);
  expect(await refused(allClear(actor, 'gale', {}, NOW))).toMatch(/Your network has no such activated takeover./);
  await fireTakeover(other, 'gale', {}, NOW);
  expect(await firings(actor)).toEqual([]);
  expect(await refused(allClear(actor, 'gale', {}, NOW))).toMatch(/^Your network has no such/);
  const [theirs] = await firings(other);
  expect(await refused(firingScreens(actor, theirs?.id ?? ''))).toMatch(/^Your network has no such/);
  const empty = await newNetwork();
  await newPlan(empty);
  expect(await refused(fireTakeover(empty, 'gale', {}, NOW))).toMatch(/^Nothing has been published yet/);
});

const idOf = ({ personId }: Actor) => personId ?? '';
const colleague = ({ networkId }: Actor, role: Role) =>
  addPerson(networkId, { name: 'Otto', email: `${randomUUID()}@example.org`, password: 'a long password' }, { role });

test('who alone may fire is said, and holds for firing, drills, the all-clear and who says it', async () => {
  const actor = await network();
  const otto = await colleague(actor, 'publisher');
  await setFirers(actor, 'gale', [idOf(actor)]);
  expect((await takeovers(otto)).firers).toEqual({ gale: [idOf(actor)] });
  const told = `Only ${actor.name} may do this with “Gale”. Ask them.`;
  for (const work of [
    fireTakeover(otto, 'gale', {}, NOW),
    drillTakeover(otto, 'gale', 'deck', {}, NOW),
    setFirers(otto, 'gale', [idOf(otto)]),
  ])
    expect(await refused(work)).toBe(told);
  await fireTakeover(actor, 'gale', {}, NOW);
  expect(await refused(allClear(otto, 'gale', {}, NOW))).toBe(told);
  await setFirers(actor, 'gale', [idOf(actor), idOf(otto)]);
  await allClear(otto, 'gale', {}, NOW + MINUTE);
  expect((await trail(actor)).filter(({ act }) => act === 'firers-set')).toHaveLength(2);
  await setFirers(otto, 'gale', []);
  expect((await takeovers(otto)).firers).toEqual({});
  const other = await network();
  expect(await refused(setFirers(actor, 'gale', [idOf(other)]))).toMatch(/^One of these people is no longer here/);
  const una = await colleague(actor, 'planner');
  expect(await refused(setFirers(actor, 'gale', [idOf(una)]))).toMatch(/^Otto can’t activate takeovers as planner/);
  expect(await refused(setFirers(other, 'none', []))).toMatch(/Your network has no such takeover./);
  expect((await takeovers(actor)).prepared).toEqual([{ id: 'gale', name: 'Gale' }]);
});

describe('a takeover that others alone may fire', () => {
  const guarded = async () => {
    const actor = await network();
    await setFirers(actor, 'gale', [idOf(actor)]);
    return { actor, otto: await colleague(actor, 'publisher') };
  };
  const content = { media: 'gale' };
  const add = (id: string, more: object) =>
    ({ kind: 'booking', id, add: { name: id, where: 'hall', created: '2026-01-01T00:00:00Z', ...more } }) as const;

  test.each<[string, (actor: Actor) => Promise<unknown>]>([
    ['taking it off hold', (otto) => edit(otto, [{ kind: 'booking', id: 'gale', set: { onHold: null } }])],
    ['giving it other screens', (otto) => edit(otto, [{ kind: 'booking', id: 'gale', set: { where: 'all' } }])],
    ['making it no takeover', (otto) => edit(otto, [{ kind: 'booking', id: 'gale', set: { takeover: null } }])],
    ['taking it away', (otto) => edit(otto, [{ kind: 'booking', id: 'gale', remove: true }])],
    ['a copy of it', (otto) => edit(otto, [add('copy', { content, takeover: true })])],
    ['a copy on hold', (otto) => edit(otto, [add('copy', { content, takeover: true, onHold: true })])],
    [
      'a booking that becomes one',
      async (otto) => {
        await edit(otto, [add('plain', { content })]);
        await edit(otto, [{ kind: 'booking', id: 'plain', set: { takeover: true } }]);
      },
    ],
    [
      'a plan file',
      async (otto) => {
        const { bookings, ...plan } = planFile((await draftPlan(otto)).plan) as { bookings: object[] };
        await importPlan(otto, { ...plan, bookings: bookings.map((one) => ({ ...one, onHold: false })) });
      },
    ],
    [
      'putting it on now',
      (otto) => putOn(otto, { content, where: 'hall', until: Date.now() + 60_000, zone: 'Europe/Oslo' }),
    ],
    [
      'firing a copy of its playlist',
      async (otto) => {
        await edit(otto, [
          { kind: 'playlist', id: 'twin', add: { name: 'Twin', items: [{ id: 'a', media: 'gale' }] } },
          add('copy', { content: { playlist: 'twin' }, takeover: true, onHold: true }),
        ]);
        await fireTakeover(otto, 'copy');
      },
    ],
    [
      'publishing a copy of its playlist',
      async (otto) => {
        await edit(otto, [
          { kind: 'playlist', id: 'twin', add: { name: 'Twin', items: [{ id: 'a', media: 'gale' }] } },
          add('copy', { content: { playlist: 'twin' }, takeover: true }),
        ]);
        await publishEdition(otto, await lastChange(otto.networkId));
      },
    ],
    [
      'planning a copy of its playlist',
      async (otto) => {
        await edit(otto, [
          { kind: 'playlist', id: 'twin', add: { name: 'Twin', items: [{ id: 'a', collect: 'kind:image' }] } },
          add('copy', { content: { playlist: 'twin' }, takeover: true }),
        ]);
        await planEdition(otto, await lastChange(otto.networkId), Date.now() + 3_600_000);
      },
    ],
  ])('is not shown or changed by %s', async (_, walkRound) => {
    const { actor, otto } = await guarded();
    expect(await refused(walkRound(otto))).toMatch(new RegExp(`[Oo]nly ${actor.name} may`));
    expect(await showing(actor, 'hall', Date.now())).not.toBe('takeover');
    expect(await booking(actor)).toMatchObject({ onHold: true, takeover: true, where: 'hall' });
    expect((await firings(actor)).length).toBe(0);
  });

  test('goes out by whoever may fire it, and not by others: published, brought forward, or gone back to', async () => {
    const { actor, otto } = await guarded();
    const at = () => lastChange(actor.networkId);
    await edit(actor, [{ kind: 'booking', id: 'gale', set: { onHold: null } }, add('plain', { content })]);
    expect(await refused(publishEdition(otto, await at()))).toMatch(/^“Gale” would go out with this/);
    const planned = await planEdition(actor, await at(), Date.now() + 3_600_000);
    expect(await refused(publishPlanned(otto, planned.id))).toMatch(/^“Gale” would go out/);
    expect(await refused(movePlanned(otto, planned.id, Date.now() + 120_000))).toMatch(/^“Gale” would go out/);
    await publishPlanned(actor, planned.id);
    // What others publish later keeps it as it is.
    await edit(otto, [{ kind: 'booking', id: 'plain', set: { where: 'deck' } }]);
    await publishEdition(otto, await at());
    await edit(actor, [{ kind: 'booking', id: 'gale', set: { onHold: true } }]);
    await publishEdition(otto, await at());
    expect(await refused(publishAgain(otto, 3))).toMatch(/^“Gale” would go out/);
    await publishAgain(actor, 3);
  });

  test('is the owners’ where those who may are gone, or have a role that fires nothing', async () => {
    const { actor, otto } = await guarded();
    const una = await colleague(actor, 'operator');
    await setFirers(actor, 'gale', [idOf(una)]);
    expect(await refused(fireTakeover(otto, 'gale', {}, NOW))).toMatch(/^Only Otto may/);
    await setRole(actor, idOf(una), 'viewer');
    expect((await takeovers(actor)).firers).toEqual({ gale: [idOf(actor)] });
    await removePerson(actor, idOf(una));
    expect(await refused(fireTakeover(otto, 'gale', {}, NOW))).toBe(
      `Only ${actor.name} may do this with “Gale”. Ask them.`,
    );
    await fireTakeover(actor, 'gale', {}, NOW);
  });
});

test('which screens showed it, from when to when, is what their players say', async () => {
  const actor = await network({});
  await edit(actor, [{ kind: 'booking', id: 'gale', set: { where: 'quay' } }]);
  const [hall, deck] = [await pairedPlayer(actor, 'hall'), await pairedPlayer(actor, 'deck')];
  await fireTakeover(actor, 'gale', {}, NOW - 10_000);
  const screens = async () => firingScreens(actor, (await firings(actor))[0]?.id ?? '');
  const shown = async () => (await screens()).map(({ screen, from, over }) => [screen, from, over]);
  const at = (ms: number) => new Date(ms).toISOString();
  await hear(hall, { source: 'takeover', id: 'gale', since: NOW - 8000 });
  await hear(deck, { source: 'backdrop', id: 'network', since: NOW - 80_000 });
  expect(await shown()).toEqual([
    ['deck', null, false],
    ['hall', at(NOW - 8000), false],
  ]);
  expect((await firings(actor))[0]).toMatchObject({ screens: 2, showing: 1, showed: 1 });
  // One that comes back later, and one whose clock says that it was before.
  await hear(deck, { source: 'takeover', id: 'gale', since: NOW - 90_000 });
  expect(await shown()).toEqual([
    ['deck', at(NOW - 10_000), false],
    ['hall', at(NOW - 8000), false],
  ]);
  await hear(hall, { source: 'takeover', id: 'gale', since: NOW - 8000 });
  const heard = (await screens())[1]?.to ?? '';
  expect(Date.parse(heard)).toBeGreaterThanOrEqual(NOW);
  await allClear(actor, 'gale', {}, Date.now());
  await hear(hall, { source: 'backdrop', id: 'network', since: Date.now() });
  await hear(deck, null);
  expect((await screens()).map(({ over }) => over)).toEqual([true, true]);
  expect((await firings(actor))[0]).toMatchObject({ showing: 0, showed: 2 });
  // Nothing of it is written twice, and none of another's.
  await hear(hall, { source: 'takeover', id: 'other' });
  expect(
    (
      await rows('SELECT 1 FROM firing_screens s JOIN firings f ON f.id = s.firing_id WHERE f.network_id = $1', [
        actor.networkId,
      ])
    ).length,
  ).toBe(2);
});
