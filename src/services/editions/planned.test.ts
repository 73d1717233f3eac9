import { forecast, programsOf } from '@/core/forecast';
import { HOUR, MINUTE } from '@/core/instant';
import { rows } from '@/database';
import { processUpload } from '../library';
import type { Actor } from '../people';
import { draftPlan, edit, lastChange, undo } from '../plan';
import { picture, send } from '../tests/files';
import { pairedPlayer } from '../tests/players';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { flushHeartbeats, heartbeat, screenStatuses, targetOf } from '../screens';
import { clearEditions } from './clear';
import { deliverAgain } from './deliver-again';
import {
  callOffPlanned,
  docket,
  docketChoice,
  editionAt,
  editions,
  endPutOn,
  movePlanned,
  planAgain,
  planEdition,
  plannedEditions,
  publishAgain,
  publishDue,
  publishEdition,
  publishPlanned,
  publishedPlan,
  putOn,
  takeBack,
} from '.';

useDatabase();

const NOW = Math.floor(Date.now() / 1000) * 1000;
const TOMORROW = NOW + 24 * HOUR;
/** An hour of the day that is far from now in Oslo, whenever this runs. */
const FAR = String((new Date(NOW).getUTCHours() + 12) % 24).padStart(2, '0');

/** A network whose first edition is out. */
async function network(): Promise<Actor> {
  const actor = await newNetwork();
  await newPlan(actor);
  const received = await send(actor, 'Drill.jpg', await picture(300, 200, '#AA3311'));
  if ('upload' in received) await processUpload(received.upload.id);
  await publishEdition(actor, await lastChange(actor.networkId));
  return actor;
}
const rename = (actor: Actor, id: string, name: string) => edit(actor, [{ kind: 'screen', id, set: { name } }]);
/** Makes a screen another that gets another program too. */
const dress = (actor: Actor, id: string, width: number) =>
  edit(actor, [
    { kind: 'screen', id, set: { width, lightsOut: [{ windows: [[`${FAR}:00`, `${FAR}:${width / 100 + 10}`]] }] } },
  ]);
const plan = async (actor: Actor, at = TOMORROW, how = {}) =>
  planEdition(actor, await lastChange(actor.networkId), at, how, NOW);
const waiting = async (actor: Actor) => (await docket(actor)).entries.map(({ kind, id }) => `${kind} ${id}`).sort();
const out = async (actor: Actor) => (await publishedPlan(actor))?.plan;
const widthOut = async (actor: Actor, id: string) => (await out(actor))?.screens.find((one) => one.id === id)?.width;
const refused = (work: Promise<unknown>) =>
  work.then(
    () => null,
    (error: Error) => error.message,
  );

/** Once what others have written was heard of here. */
async function until<T>(ask: () => Promise<T>, holds: (value: T) => boolean): Promise<T> {
  for (;;) {
    const value = await ask();
    if (holds(value)) return value;
    await new Promise(setImmediate);
  }
}

test('what is planned is frozen, is on no screen before its time, and what is changed later collects on top of it', async () => {
  const actor = await network();
  await dress(actor, 'hall', 500);
  const { id, at } = await plan(actor, TOMORROW, { note: ' For the fair ' });
  expect(at).toBe(new Date(TOMORROW).toISOString());
  expect(await waiting(actor)).toEqual([]);
  expect((await docket(actor)).after).toBe(at);
  expect(await plannedEditions(actor)).toEqual([
    {
      ...{ id, at, person: expect.stringMatching(/^Person of/), note: 'For the fair', screens: ['hall'], ready: 0 },
      ...{ siteTime: null, steps: [], pilot: null, wentBack: null },
    },
  ]);
  expect((await editions(actor)).map(({ number }) => number)).toEqual([1]);
  await dress(actor, 'hall', 600);
  await rename(actor, 'deck', 'Aft deck');
  expect(await waiting(actor)).toEqual(['screen deck', 'screen hall']);
  expect((await docket(actor)).entries.find((one) => one.id === 'hall')?.sentences.join()).toContain('500');
  expect(await publishDue(new Date(TOMORROW - 1))).toBe(0);
  expect(await publishDue(new Date(TOMORROW))).toBe(1);
  expect(await widthOut(actor, 'hall')).toBe(500);
  expect(await waiting(actor)).toEqual(['screen deck', 'screen hall']);
  const [second] = await editions(actor);
  expect(second).toMatchObject({
    number: 2,
    publishedAt: at,
    plannedFor: at,
    person: expect.stringMatching(/^Person of/),
    touched: 1,
  });
  expect((await editionAt(actor, new Date(TOMORROW + 1))).edition?.number).toBe(2);
  expect((await editionAt(actor, new Date(TOMORROW - 1))).edition?.number).toBe(1);
  expect(await plannedEditions(actor)).toEqual([]);
});

test('a change that is planned and then taken back in the draft is published out of what is planned', async () => {
  const actor = await network();
  await dress(actor, 'hall', 500);
  await plan(actor);
  await edit(actor, [{ kind: 'screen', id: 'hall', set: { width: 1920, lightsOut: null } }]);
  expect(await waiting(actor)).toEqual(['screen hall']);
  // What is out is so already: only what is planned changes.
  await publishEdition(actor, await lastChange(actor.networkId));
  expect(await waiting(actor)).toEqual([]);
  expect((await editions(actor))[0]).toMatchObject({ number: 2, touched: 0 });
  expect(await publishDue(new Date(TOMORROW))).toBe(1);
  expect(await widthOut(actor, 'hall')).toBe(1920);
});

test('two wait in order, keep it when they are moved, and go out one after the other, also late and at once', async () => {
  const actor = await network();
  await dress(actor, 'hall', 500);
  const first = await plan(actor, TOMORROW);
  await dress(actor, 'hall', 600);
  expect(await refused(plan(actor, TOMORROW))).toMatch(
    /^It builds on an edition planned for .* UTC\. Choose a later time\.$/,
  );
  const second = await plan(actor, TOMORROW + HOUR);
  expect(await refused(movePlanned(actor, first.id, TOMORROW + HOUR, NOW))).toMatch(/Choose an earlier time, or move/);
  expect(await refused(movePlanned(actor, second.id, TOMORROW, NOW))).toMatch(/Choose a later time/);
  await movePlanned(actor, first.id, TOMORROW + MINUTE, NOW);
  expect((await plannedEditions(actor)).map(({ at }) => Date.parse(at ?? '') - TOMORROW)).toEqual([MINUTE, HOUR]);
  expect(await refused(publishPlanned(actor, second.id, NOW))).toMatch(/^Another edition is planned before/);
  // No worker ran for a while.
  expect(await publishDue(new Date(TOMORROW + 2 * HOUR))).toBe(2);
  expect(
    (await editions(actor)).map(({ number, publishedAt }) => [number, Date.parse(publishedAt) - TOMORROW]),
  ).toEqual([
    [3, HOUR],
    [2, MINUTE],
    [1, expect.any(Number)],
  ]);
  expect(await widthOut(actor, 'hall')).toBe(600);
});

test('called off, its changes wait again; those of one in between go out with the one that stands on it', async () => {
  const actor = await network();
  await dress(actor, 'hall', 500);
  const first = await plan(actor, TOMORROW);
  await dress(actor, 'deck', 600);
  const second = await plan(actor, TOMORROW + HOUR);
  await callOffPlanned(actor, first.id, NOW);
  expect(await waiting(actor)).toEqual([]);
  expect((await plannedEditions(actor)).map(({ screens }) => screens)).toEqual([['deck', 'hall']]);
  await callOffPlanned(actor, second.id, NOW);
  expect(await waiting(actor)).toEqual(['screen deck', 'screen hall']);
  expect(await refused(callOffPlanned(actor, second.id, NOW))).toMatch(/^Your network has no such planned edition/);
  expect(await publishDue(new Date(TOMORROW + 2 * HOUR))).toBe(0);
});

test('it is published early: then it is out, and nothing of it comes again', async () => {
  const actor = await network();
  await dress(actor, 'hall', 500);
  const { id } = await plan(actor);
  expect(await publishPlanned(actor, id, NOW)).toEqual({ number: 2 });
  expect(await widthOut(actor, 'hall')).toBe(500);
  expect(await publishDue(new Date(TOMORROW))).toBe(0);
  expect(await waiting(actor)).toEqual([]);
  expect(await refused(publishEdition(actor, await lastChange(actor.networkId)))).toMatch(/since edition 2/);
});

test('what is published meanwhile goes ahead without what is planned, and the planned edition has it too', async () => {
  const actor = await network();
  await dress(actor, 'hall', 500);
  await plan(actor);
  await dress(actor, 'deck', 600);
  await rename(actor, 'deck', 'Aft deck');
  await publishEdition(actor, await lastChange(actor.networkId));
  expect([await widthOut(actor, 'hall'), await widthOut(actor, 'deck')]).toEqual([1920, 600]);
  expect(await waiting(actor)).toEqual([]);
  expect((await plannedEditions(actor)).map(({ screens }) => screens)).toEqual([['hall']]);
  await publishDue(new Date(TOMORROW));
  expect([await widthOut(actor, 'hall'), await widthOut(actor, 'deck')]).toEqual([500, 600]);
  expect(await waiting(actor)).toEqual([]);
  expect((await out(actor))?.screens.find((one) => one.id === 'deck')?.name).toBe('Aft deck');
  // It is the draft as it stands, and known to be.
  expect(await refused(publishEdition(actor, await lastChange(actor.networkId)))).toMatch(/since edition 3/);
});

test('a choice is planned, and a choice is published before it: each has its own', async () => {
  const actor = await network();
  await dress(actor, 'hall', 500);
  await dress(actor, 'deck', 600);
  await plan(actor, TOMORROW, { chosen: [{ kind: 'screen', id: 'hall' }] });
  expect(await waiting(actor)).toEqual(['screen deck']);
  expect((await docketChoice(actor, [{ kind: 'screen', id: 'deck' }])).screens).toEqual(['deck']);
  await rename(actor, 'hall', 'Great hall');
  await publishEdition(actor, await lastChange(actor.networkId), { chosen: [{ kind: 'screen', id: 'deck' }] });
  expect([await widthOut(actor, 'hall'), await widthOut(actor, 'deck')]).toEqual([1920, 600]);
  expect(await waiting(actor)).toEqual(['screen hall']);
  await publishDue(new Date(TOMORROW));
  expect(await widthOut(actor, 'hall')).toBe(500);
  expect((await out(actor))?.screens.find((one) => one.id === 'hall')?.name).toBe('Hall');
  expect(await waiting(actor)).toEqual(['screen hall']);
});

test('what is put on stays on over the instant, and what was ended stays ended', async () => {
  const actor = await network();
  await dress(actor, 'hall', 500);
  await plan(actor, NOW + 30 * MINUTE);
  const on = { content: { media: 'drill' }, where: 'hall', until: NOW + HOUR, zone: 'Europe/Oslo' };
  const first = await putOn(actor, on, NOW);
  const second = await putOn(actor, { ...on, where: 'deck' }, NOW);
  await endPutOn(actor, second.id, NOW + MINUTE);
  expect(await waiting(actor)).toEqual([]);
  await publishDue(new Date(NOW + 30 * MINUTE));
  const plan2 = await out(actor);
  if (!plan2) throw new Error('nothing is out');
  const showing = (screen: string, at: number) => {
    const program = programsOf(plan2).get(screen);
    return program && forecast(program, at, at + 1).segments[0]?.id;
  };
  expect(showing('hall', NOW + 40 * MINUTE)).toBe(first.id);
  expect(showing('deck', NOW + 40 * MINUTE)).not.toBe(second.id);
  expect(await waiting(actor)).toEqual([]);
  expect(await refused(publishEdition(actor, await lastChange(actor.networkId)))).toMatch(/^Nothing has changed since/);
});

test('changes on top are taken back to what is planned, and undone', async () => {
  const actor = await network();
  await dress(actor, 'hall', 500);
  await plan(actor);
  await dress(actor, 'hall', 700);
  await takeBack(actor, await lastChange(actor.networkId), [{ kind: 'screen', id: 'hall' }]);
  expect((await draftPlan(actor)).plan.screens.find((one) => one.id === 'hall')?.width).toBe(500);
  expect(await waiting(actor)).toEqual([]);
  await undo(actor, 'undo');
  expect(await waiting(actor)).toEqual(['screen hall']);
});

test('an earlier edition that is published again leaves what is planned at its time', async () => {
  const actor = await network();
  await dress(actor, 'hall', 500);
  await publishEdition(actor, await lastChange(actor.networkId));
  await dress(actor, 'hall', 600);
  await plan(actor);
  expect((await plannedEditions(actor))[0]).toMatchObject({ wentBack: null });
  // What it changes is looked at first; who looked at another newest edition is told.
  const seen = await planAgain(actor, 1);
  expect(seen.screens.find(({ id }) => id === 'hall')?.width).toBe(1920);
  expect(await refused(publishAgain(actor, 1, { seen: 1 }))).toMatch(/Edition 2 was published in the meantime./);
  await publishAgain(actor, 1, { seen: 2 });
  expect(await widthOut(actor, 'hall')).toBe(1920);
  expect((await plannedEditions(actor))[0]).toMatchObject({ wentBack: { number: 3, to: 1 } });
  await publishDue(new Date(TOMORROW));
  expect(await widthOut(actor, 'hall')).toBe(600);
});

test('a plan that can’t be made gets a message, and nothing is written', async () => {
  const actor = await network();
  expect(await refused(plan(actor))).toMatch(/^Nothing has changed since edition 1/);
  await dress(actor, 'hall', 500);
  expect(await refused(plan(actor, NOW + 4000))).toMatch(/^This time is over, or too close/);
  expect(await refused(plan(actor, Number.NaN))).toMatch(/^This time is over/);
  expect(await refused(plan(actor, NOW + 401 * 24 * HOUR))).toMatch(/at most 400 days/);
  expect(await refused(planEdition(actor, 0, TOMORROW, {}, NOW))).toMatch(/^The plan has changed since/);
  expect(await refused(plan(actor, TOMORROW, { note: 'x'.repeat(501) }))).toMatch(/500 characters/);
  expect(await refused(plan(actor, TOMORROW, { chosen: [{ kind: 'screen', id: 'deck' }] }))).toMatch(
    /^These changes are all published already/,
  );
  expect(await plannedEditions(actor)).toEqual([]);
  expect(await waiting(actor)).toEqual(['screen hall']);
  const empty = await newNetwork();
  await newPlan(empty);
  expect(await refused(plan(empty))).toMatch(/^Nothing has been published yet/);
});

test('another network sees, moves and calls off none of it', async () => {
  const actor = await network();
  const other = await network();
  await dress(actor, 'hall', 500);
  const { id } = await plan(actor);
  expect(await plannedEditions(other)).toEqual([]);
  for (const work of [
    callOffPlanned(other, id, NOW),
    publishPlanned(other, id, NOW),
    movePlanned(other, id, TOMORROW + HOUR, NOW),
  ])
    expect(await refused(work)).toMatch(/^Your network has no such planned edition/);
  expect(await plannedEditions(actor)).toHaveLength(1);
});

test('a player is told what comes and when, and may fetch it; due, it plays that before its number is written down', async () => {
  const actor = await network();
  const player = await pairedPlayer(actor, 'hall');
  const deck = await pairedPlayer(actor, 'deck');
  await dress(actor, 'hall', 500);
  const { id } = await plan(actor, NOW + HOUR);
  const before = await until(
    () => targetOf(player),
    ({ coming }) => coming?.length === 1,
  );
  expect(before).toMatchObject({
    edition: 1,
    coming: [{ at: NOW + HOUR, program: expect.stringMatching(/^[0-9a-f]{64}$/), source: id }],
  });
  expect(before.source).not.toBe(id);
  expect((await targetOf(deck)).coming).toEqual([]);
  const [coming] = before.coming ?? [];
  heartbeat(player, {
    ...{ state: 'playing', edition: 1, program: before.program, playing: null, download: null, clockOffsetMs: 0 },
    ...{ storage: null, errors: [], software: 'test', ready: [coming?.program ?? ''] },
  });
  await flushHeartbeats();
  expect((await plannedEditions(actor))[0]).toMatchObject({ screens: ['hall'], ready: 1 });
  // Its time comes, and no worker runs.
  await rows(`UPDATE editions SET planned_for = now() - interval '1 second' WHERE number IS NULL AND network_id = $1`, [
    actor.networkId,
  ]);
  await dress(actor, 'deck', 800);
  expect(
    await until(
      () => targetOf(player),
      (target) => target.coming?.length === 0,
    ),
  ).toMatchObject({ edition: 1, program: coming?.program, source: id });
  heartbeat(player, {
    ...{ state: 'playing', edition: 1, program: coming?.program ?? null, playing: null, download: null },
    ...{ clockOffsetMs: 0, storage: null, errors: [], software: 'test' },
  });
  await flushHeartbeats();
  expect((await screenStatuses(actor)).find((one) => one.id === 'hall')?.state).toBe('lit');
  // Who publishes then publishes on top of it.
  await publishEdition(actor, await lastChange(actor.networkId));
  expect((await editions(actor)).map(({ number }) => number)).toEqual([3, 2, 1]);
  expect([await widthOut(actor, 'hall'), await widthOut(actor, 'deck')]).toEqual([500, 800]);
});

test('of two that are due and have no number yet the later one plays, and what is put on meanwhile stands on both', async () => {
  const actor = await network();
  const player = await pairedPlayer(actor, 'hall');
  await dress(actor, 'hall', 500);
  await plan(actor, NOW + HOUR);
  await dress(actor, 'hall', 700);
  await plan(actor, NOW + 2 * HOUR);
  const { coming } = await until(
    () => targetOf(player),
    (target) => target.coming?.length === 2,
  );
  await rows(
    `UPDATE editions SET planned_for = planned_for - interval '3 hours' WHERE number IS NULL AND network_id = $1`,
    [actor.networkId],
  );
  await dress(actor, 'deck', 800);
  expect(
    await until(
      () => targetOf(player),
      (target) => target.coming?.length === 0,
    ),
  ).toMatchObject({ edition: 1, program: coming?.[1]?.program });
  const { edition } = await putOn(actor, {
    ...{ content: { media: 'drill' }, where: 'deck', until: Date.now() + HOUR, zone: 'UTC' },
  });
  expect(edition).toBe(4);
  expect(await widthOut(actor, 'hall')).toBe(700);
});

test('what it holds is kept and delivered like that of the others, and let go of when it is called off', async () => {
  const actor = await network();
  await dress(actor, 'hall', 500);
  const { id } = await plan(actor);
  await rows('UPDATE networks SET kept_editions = 1, kept_days = 1 WHERE id = $1', [actor.networkId]);
  const held = async () =>
    (await rows('SELECT 1 FROM programs p JOIN edition_screens s ON s.hash = p.hash WHERE s.edition_id = $1', [id]))
      .length;
  const count = await held();
  expect(count).toBeGreaterThan(0);
  await clearEditions(new Date(TOMORROW + 30 * 24 * HOUR));
  expect(await held()).toBe(count);
  await deliverAgain(actor.networkId);
  expect(await held()).toBe(count);
  await callOffPlanned(actor, id, NOW);
  expect(await held()).toBe(0);
});
