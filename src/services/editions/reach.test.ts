import { HOUR, MINUTE } from '@/core/instant';
import { rows } from '@/database';
import { edit, lastChange } from '../plan';
import type { Actor } from '../people';
import type { Report } from '@/protocol/schemas';
import { flushHeartbeats, heartbeat, targetOf, watchPilots, type Player } from '../screens';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { pairedPlayer } from '../tests/players';
import {
  callOffPlanned,
  deliveredPrograms,
  docket,
  editions,
  movePlanned,
  pilotEdition,
  planEdition,
  plannedEditions,
  publishAgain,
  publishDue,
  publishEdition,
  publishPlanned,
  publishedPrograms,
  settlePilot,
  type Piloting,
} from '.';

useDatabase();

/** Editions that reach screens one by one. `hall` and `deck` stand in Oslo, `hut` in Iceland, an hour behind in winter. */

/** The first of February of next year: winter on both. */
const YEAR = new Date().getUTCFullYear() + 1;
const SIX = { siteTime: `${YEAR}-02-01T06:00:00` };
const IN_OSLO = Date.UTC(YEAR, 1, 1, 5);
const IN_ICELAND = Date.UTC(YEAR, 1, 1, 6);

async function network(): Promise<Actor> {
  const actor = await newNetwork();
  await newPlan(actor);
  await edit(actor, [
    { kind: 'site', id: 'isle', add: { name: 'Isle', timeZone: 'Atlantic/Reykjavik', tags: [] } },
    { kind: 'screen', id: 'hut', add: { name: 'Hut', site: 'isle', width: 1280, height: 720, tags: ['hut'] } },
  ]);
  await publishEdition(actor, await lastChange(actor.networkId));
  return actor;
}
/** All screens get another program: they are dark from an hour on. */
const darkFrom = (actor: Actor, from: string, screens = ['hall', 'deck', 'hut']) =>
  edit(
    actor,
    screens.map((id) => ({ kind: 'screen' as const, id, set: { lightsOut: [{ windows: [[from, '05:30']] }] } })),
  );
const change = (actor: Actor) => lastChange(actor.networkId);
const refused = (work: Promise<unknown>) =>
  work.then(
    () => null,
    (error: Error) => error.message,
  );
const given = async (actor: Actor) => Object.fromEntries(await deliveredPrograms(actor.networkId));
const REPORT: Report = {
  ...{ edition: 1, program: null, state: 'playing', playing: null, software: 'test', clockOffsetMs: 0 },
  ...{ storage: null, download: null, errors: [] },
};
/** A player tells what it plays: what it is to play. */
const beat = async (player: Player, told: Partial<Report> = {}) => {
  heartbeat(player, { ...REPORT, program: (await targetOf(player)).program, ...told });
  await flushHeartbeats();
};
/** A player's target, once what others have written was heard of here. */
const target = async (player: Player, holds: (program: string | null) => boolean) => {
  for (;;) {
    const { program } = await targetOf(player);
    if (holds(program)) return program;
    await new Promise(setImmediate);
  }
};

test('a time at each site comes to each screen when its own clock shows it, and has its number when it is out everywhere', async () => {
  const actor = await network();
  const [hall, hut] = [await pairedPlayer(actor, 'hall'), await pairedPlayer(actor, 'hut')];
  const before = await given(actor);
  await darkFrom(actor, '01:00');
  const { id, at } = await planEdition(actor, await change(actor), SIX);
  expect(Date.parse(at)).toBe(IN_ICELAND);
  const [planned] = await plannedEditions(actor);
  expect(planned).toMatchObject({ id, at, siteTime: SIX.siteTime });
  expect(planned?.steps).toEqual([
    { at: new Date(IN_OSLO).toISOString(), screens: ['deck', 'hall'] },
    { at: new Date(IN_ICELAND).toISOString(), screens: ['hut'] },
  ]);
  expect(await given(actor)).toEqual(before);
  expect((await targetOf(hall)).coming?.map((one) => one.at)).toEqual([IN_OSLO]);
  expect((await targetOf(hut)).coming?.map((one) => one.at)).toEqual([IN_ICELAND]);
  expect(await publishDue(new Date(IN_OSLO))).toBe(0);
  expect(await publishDue(new Date(IN_ICELAND))).toBe(1);
  expect((await editions(actor))[0]).toMatchObject({ number: 2, publishedAt: at });
});

test('what is planned around one has to be before its first site, or after its last', async () => {
  const actor = await network();
  await darkFrom(actor, '01:00');
  const first = await planEdition(actor, await change(actor), SIX);
  await darkFrom(actor, '02:00');
  const next = async (at: number | { siteTime: string }) => planEdition(actor, await change(actor), at);
  expect(await refused(next(IN_OSLO + HOUR / 2))).toMatch(/It builds on an edition planned for 2027-02-01 06:00 UTC./);
  expect(await refused(next({ siteTime: `${YEAR}-02-01T06:30:00` }))).toMatch(
    /It builds on an edition planned for 2027-02-01 06:00 UTC./,
  );
  expect(await refused(next({ siteTime: '2026-02-30T06:00:00' }))).toMatch(/^A time at each site is/);
  const second = await next(IN_ICELAND + HOUR);
  expect(await refused(movePlanned(actor, first.id, { siteTime: `${YEAR}-02-01T07:00:00` }))).toMatch(
    /^The next edition goes out/,
  );
  expect(await movePlanned(actor, second.id, { siteTime: `${YEAR}-02-01T07:30:00` })).toEqual({
    at: new Date(IN_ICELAND + 1.5 * HOUR).toISOString(),
    siteTime: `${YEAR}-02-01T07:30:00`,
  });
  expect(await movePlanned(actor, first.id, IN_OSLO)).toEqual({ at: new Date(IN_OSLO).toISOString(), siteTime: null });
  expect((await plannedEditions(actor)).map(({ steps }) => steps.length)).toEqual([0, 2]);
});

test('between the first site and the last, what is published goes to all, and each screen keeps what has reached it', async () => {
  const actor = await network();
  const [hall, hut] = [await pairedPlayer(actor, 'hall'), await pairedPlayer(actor, 'hut')];
  // In Oslo it is out by now, in Iceland it is not.
  const oslo = new Date(Date.now() + HOUR - 60_000).toISOString().slice(0, 19);
  const before = await given(actor);
  await darkFrom(actor, '01:00');
  const { id } = await planEdition(actor, await change(actor), { siteTime: oslo }, {}, Date.now() - 2 * HOUR);
  const half = await given(actor);
  expect(half.hut).toBe(before.hut);
  expect(half.hall).not.toBe(before.hall);
  expect((await targetOf(hall)).program).toBe(half.hall);
  expect(await targetOf(hut)).toMatchObject({ program: before.hut, coming: [{ at: expect.any(Number) as number }] });
  expect(await refused(movePlanned(actor, id, IN_ICELAND))).toMatch(/^It is out at some sites already/);
  await beat(hall);
  await darkFrom(actor, '02:00', ['deck']);
  await publishEdition(actor, await change(actor));
  const after = await given(actor);
  expect([after.hall, after.hut]).toEqual([half.hall, half.hut]);
  expect(after.deck).not.toBe(half.deck);
  const [waits] = await plannedEditions(actor);
  expect(waits?.steps.map(({ screens }) => screens.join())).toEqual(['deck,hall', 'hut']);
  await callOffPlanned(actor, waits?.id ?? '');
  expect(await given(actor)).toMatchObject({ hall: before.hall, hut: before.hut });
  expect(await target(hall, (program) => program === before.hall)).toBe(before.hall);
});

const HALL = { where: 'hall', minutes: null };

test('a pilot is on its screens alone, until a person gives it to the others', async () => {
  const actor = await network();
  const [hall, hut] = [await pairedPlayer(actor, 'hall'), await pairedPlayer(actor, 'hut')];
  const before = await given(actor);
  await darkFrom(actor, '01:00');
  expect(await pilotEdition(actor, await change(actor), HALL)).toMatchObject({ screens: 1 });
  const tried = await given(actor);
  expect(tried).toMatchObject({ deck: before.deck, hut: before.hut });
  expect(tried.hall).not.toBe(before.hall);
  expect(await target(hall, (program) => program === tried.hall)).toBe(tried.hall);
  expect(await targetOf(hut)).toMatchObject({ program: before.hut, coming: [] });
  // A player that is new gets what the others have.
  expect((await targetOf(await pairedPlayer(actor, 'deck'))).program).toBe(before.deck);
  expect((await docket(actor)).entries).toEqual([]);
  expect(await docket(actor)).toMatchObject({ pilot: true, after: null });
  await beat(hall);
  expect(await watchPilots(Date.now() + 1000)).toBe(0);
  const [waits] = await plannedEditions(actor);
  expect(waits).toMatchObject({ at: null, pilot: { where: 'hall', litSince: expect.any(String) as string } });
  expect(await refused(publishAgain(actor, 1))).toMatch(
    /A pilot is running, and its screens would keep their edition./,
  );
  // What is published meanwhile goes to all; the pilot keeps what it tries, with that in it.
  await darkFrom(actor, '02:00', ['deck']);
  await publishEdition(actor, await change(actor));
  expect(await given(actor)).toMatchObject({ hall: tried.hall, hut: before.hut });
  const [carried] = await plannedEditions(actor);
  await publishPlanned(actor, carried?.id ?? '');
  expect((await given(actor)).hut).not.toBe(before.hut);
  expect((await editions(actor))[0]).toMatchObject({ number: 3, plannedFor: null });
  expect(await plannedEditions(actor)).toEqual([]);
});

test('it goes to the others by itself when its screens were lit for so long, and back where it is called off', async () => {
  const actor = await network();
  const hall = await pairedPlayer(actor, 'hall');
  const before = await given(actor);
  await darkFrom(actor, '01:00');
  const pilot = { where: 'hall', minutes: 5 };
  const { id } = await pilotEdition(actor, await change(actor), pilot);
  await callOffPlanned(actor, id);
  expect(await given(actor)).toEqual(before);
  expect((await docket(actor)).entries).toHaveLength(3);
  await pilotEdition(actor, await change(actor), pilot, { note: 'By itself' });
  await target(hall, (program) => program !== before.hall);
  await beat(hall);
  const now = Date.now();
  expect(await watchPilots(now)).toBe(0);
  expect(await watchPilots(now + 30_000)).toBe(0);
  const later = now + 5 * 60_000;
  heartbeat(hall, { ...REPORT, program: (await targetOf(hall)).program });
  await flushHeartbeats();
  // It was heard a moment ago by the clock that looks.
  await rows('UPDATE players SET last_seen = $1', [new Date(later - 1000)]);
  expect(await watchPilots(later)).toBe(1);
  expect(await watchPilots(later)).toBe(0);
  expect((await editions(actor))[0]).toMatchObject({ number: 2, note: 'By itself' });
  expect(await given(actor)).toEqual(Object.fromEntries(await publishedPrograms(actor.networkId)));
});

test('with a time, all hear of it once its screens were lit for long enough, and forget it where one fails after that', async () => {
  const actor = await network();
  const [hall, hut] = [await pairedPlayer(actor, 'hall'), await pairedPlayer(actor, 'hut')];
  const before = await given(actor);
  await darkFrom(actor, '01:00');
  const now = Date.now();
  const at = Math.round((now + HOUR) / 1000) * 1000;
  const tried = async (pilot: Piloting) => pilotEdition(actor, await change(actor), pilot, {}, now);
  expect(await refused(tried({ where: 'hall', minutes: null, at }))).toMatch(
    /Say how many minutes its screens must be lit before this time./,
  );
  expect(await refused(tried({ where: 'hall', minutes: 90, at }))).toMatch(/That is less than 90 minutes from now./);
  expect(await refused(tried({ where: 'hall', minutes: 5, at: now - HOUR }))).toMatch(/^This time is over/);
  await tried({ where: 'hall', minutes: 5, at });
  await target(hall, (program) => program !== before.hall);
  await beat(hall);
  expect(await watchPilots(now)).toBe(0);
  expect((await targetOf(hut)).coming).toEqual([]);
  const later = now + 5 * MINUTE;
  await rows('UPDATE players SET last_seen = $1', [new Date(later - 1000)]);
  expect(await watchPilots(later)).toBe(1);
  // This process hears of it in its own time.
  const comesAt = async (instants: readonly number[]) => {
    for (;;) {
      const { coming } = await targetOf(hut);
      if (coming?.map((one) => one.at).join() === instants.join()) return;
      await rows('SELECT 1');
    }
  };
  await comesAt([at]);
  expect(await plannedEditions(actor)).toMatchObject([{ at: new Date(at).toISOString(), pilot: { stopped: null } }]);
  await beat(hall, { errors: [{ at: Date.now() + 1, message: 'A film could not be read' }] });
  expect(await watchPilots(later)).toBe(1);
  await comesAt([]);
  expect(await publishDue(new Date(at))).toBe(0);
  const [waits] = await plannedEditions(actor);
  expect(waits?.at).toBeNull();
  expect(waits?.pilot?.stopped?.why).toBe('Hall: A film could not be read');
  expect((await given(actor)).hut).toBe(before.hut);
});

test('a pilot that fails just as its time comes is out: players have switched by themselves', async () => {
  const actor = await network();
  const hall = await pairedPlayer(actor, 'hall');
  await darkFrom(actor, '01:00');
  const at = Math.round((Date.now() + HOUR) / 1000) * 1000;
  const { id } = await pilotEdition(actor, await change(actor), { where: 'hall', minutes: 5, at });
  const [tried] = await plannedEditions(actor);
  const running = { id, networkId: actor.networkId, pilot: tried?.pilot as never, passed: false };
  expect(await settlePilot(running, { kind: 'pass', litSince: new Date().toISOString() })).toBe(true);
  await beat(hall, { errors: [{ at: Date.now() + 1, message: 'A film could not be read' }] });
  // No worker has written its number yet.
  expect(await watchPilots(at + 100)).toBe(0);
  expect(await plannedEditions(actor)).toEqual([]);
  expect((await editions(actor))[0]).toMatchObject({ id, number: 2, publishedAt: new Date(at).toISOString() });
});

test('it stops where a pilot fails, says why, and waits for a person', async () => {
  const actor = await network();
  const hall = await pairedPlayer(actor, 'hall');
  const before = await given(actor);
  await darkFrom(actor, '01:00');
  await pilotEdition(actor, await change(actor), { where: 'hall', minutes: 1 });
  await target(hall, (program) => program !== before.hall);
  await beat(hall, { errors: [{ at: Date.now() + 1, message: 'A film could not be read' }] });
  expect(await watchPilots()).toBe(1);
  const [stopped] = await plannedEditions(actor);
  expect(stopped?.pilot?.stopped).toMatchObject({ why: 'Hall: A film could not be read' });
  await beat(hall);
  expect(await watchPilots(Date.now() + HOUR)).toBe(0);
  // Whoever looked at it before it stopped may still say that it did well.
  const late = { id: stopped?.id ?? '', networkId: actor.networkId, pilot: stopped?.pilot as never, passed: false };
  await settlePilot(late, { kind: 'publish' });
  expect(await plannedEditions(actor)).toMatchObject([
    { id: stopped?.id, pilot: { stopped: { why: expect.any(String) } } },
  ]);
  expect(await given(actor)).toMatchObject({ deck: before.deck, hut: before.hut });
  await callOffPlanned(actor, stopped?.id ?? '');
  expect(await given(actor)).toEqual(before);
});

test('a server that was away does not hold it against pilots; one that stays dark while others are heard stops it', async () => {
  const actor = await network();
  const [hall, hut] = [await pairedPlayer(actor, 'hall'), await pairedPlayer(actor, 'hut')];
  await darkFrom(actor, '01:00');
  await pilotEdition(actor, await change(actor), { where: 'hall', minutes: 60 });
  await target(hall, (program) => program !== null);
  await beat(hall);
  await beat(hut);
  const now = Date.now();
  expect(await watchPilots(now)).toBe(0);
  // Nobody was heard for ten minutes; then one of the others is, for three.
  expect(await watchPilots(now + 10 * MINUTE)).toBe(0);
  const heard = async (at: number) => {
    await rows('UPDATE players SET last_seen = $2 WHERE id = $1', [hut.id, new Date(at)]);
    return watchPilots(at);
  };
  expect(await heard(now + 11 * MINUTE)).toBe(0);
  expect(await heard(now + 12 * MINUTE)).toBe(0);
  expect(await heard(now + 13 * MINUTE)).toBe(1);
  expect((await plannedEditions(actor))[0]?.pilot?.stopped?.why).toBe('Hall went dark with it.');
});

test('where it can’t be tried there is a message, and nothing is given to any screen', async () => {
  const actor = await network();
  await darkFrom(actor, '01:00', ['hall', 'deck']);
  const pilot = async (where: string) => refused(pilotEdition(actor, await change(actor), { where, minutes: null }));
  expect(await pilot('nowhere')).toMatch(/No screen matches this./);
  expect(await pilot('hut')).toMatch(/^It changes nothing on these screens/);
  expect(await pilot('hall or deck')).toMatch(/^These are all the screens that it changes/);
  expect(await pilot('hall')).toMatch(/^None of these screens has a player/);
  await pairedPlayer(actor, 'hall');
  await planEdition(actor, await change(actor), SIX);
  await darkFrom(actor, '02:00');
  expect(await pilot('hall')).toMatch(/Another edition is waiting already./);
  const [planned] = await plannedEditions(actor);
  await callOffPlanned(actor, planned?.id ?? '');
  expect(await pilot('hall')).toBeNull();
  await darkFrom(actor, '03:00');
  expect(await refused(planEdition(actor, await change(actor), SIX))).toMatch(/^A pilot is running/);
  expect(await refused(movePlanned(actor, (await plannedEditions(actor))[0]?.id ?? '', SIX))).toMatch(/^It is being/);
});
