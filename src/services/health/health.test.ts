import { HOUR, MINUTE } from '@/core/instant';
import { rows } from '@/database';
import { edit, lastChange } from '../plan';
import { publishEdition } from '../editions';
import { targetOf } from '../screens';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { pairedPlayer } from '../tests/players';
import { clearHealth, noteHealth, overviewNews, screenHealth, screensOverview } from '.';

useDatabase();

/** A network whose hall has a player that plays what it should; `tell` is a heartbeat at an instant. */
async function network() {
  const actor = await newNetwork();
  await newPlan(actor);
  await publishEdition(actor, await lastChange(actor.networkId));
  const player = await pairedPlayer(actor, 'hall');
  const { program } = await targetOf(player);
  const tell = (at: number, more: object = {}) => {
    const report = {
      ...{ state: 'playing', edition: 1, program, playing: null, download: null, errors: [], software: 'test 1' },
      ...{ clockOffsetMs: 1500, storage: { usedBytes: 25, limitBytes: 100 }, hardware: { temperature: 41 }, ...more },
    };
    return rows('UPDATE players SET report = $2, last_seen = $3 WHERE id = $1', [player.id, report, new Date(at)]);
  };
  return { actor, tell };
}
const NOON = Date.UTC(2026, 11, 1, 12);

test('a change of state is written down once, with its minute; samples come every five minutes, from what is online', async () => {
  const { actor, tell } = await network();
  for (let minute = 0; minute < 12; minute++) {
    const at = NOON + minute * MINUTE + 20_000;
    if (minute < 7) await tell(at);
    // Two workers at once write the same as one.
    await Promise.all([noteHealth(at), noteHealth(at)]);
  }
  const { states, samples, player } = await screenHealth(actor, 'hall', NOON + HOUR);
  expect(states).toEqual([
    { at: NOON, state: 'lit' },
    { at: NOON + 7 * MINUTE, state: 'dark' },
  ]);
  const measured = { temperature: 41, storage: 0.25, clock: 1500 };
  expect(samples).toEqual([
    { at: NOON, ...measured },
    { at: NOON + 5 * MINUTE, ...measured },
  ]);
  expect(player).toMatchObject({ software: 'test 1', can: [], hardware: { temperature: 41 } });
  expect((await screenHealth(actor, 'deck', NOON + HOUR)).states).toEqual([{ at: NOON, state: 'unpaired' }]);
  expect((await screenHealth(actor, 'deck', NOON + HOUR)).player).toBeNull();
});

test('the last state before the day is known; old rows are deleted, the last state of each screen stays', async () => {
  const { actor, tell } = await network();
  for (const [hours, isTold] of [
    [-80, true],
    [-70, false],
    [-60, true],
  ] as const) {
    const at = NOON + hours * HOUR;
    if (isTold) await tell(at);
    await noteHealth(at);
  }
  const states = async () => (await screenHealth(actor, 'hall', NOON)).states;
  expect(await states()).toEqual([{ at: NOON - 60 * HOUR, state: 'lit' }]);
  expect(await clearHealth(new Date(NOON))).toBeGreaterThan(0);
  expect(await states()).toEqual([{ at: NOON - 60 * HOUR, state: 'lit' }]);
  const kept = await rows('SELECT 1 FROM screen_states WHERE network_id = $1 AND screen = $2', [
    actor.networkId,
    'hall',
  ]);
  expect(kept).toHaveLength(1);
  await edit(actor, [{ kind: 'screen', id: 'hall', remove: true }]);
  await clearHealth(new Date(NOON));
  expect(
    await rows("SELECT 1 FROM screen_states WHERE network_id = $1 AND screen = 'hall'", [actor.networkId]),
  ).toEqual([]);
});

test('another network’s screen is not found', async () => {
  const [own, other] = [await network(), await newNetwork()];
  await expect(screenHealth(other, 'hall')).rejects.toMatchObject({ status: 404 });
  expect((await screenHealth(own.actor, 'hall')).player).not.toBeNull();
});

test('a trouble stands since it was first seen, whatever its numbers are by now; gone and back, it begins anew', async () => {
  const { actor, tell } = await network();
  const since = async () => (await screenHealth(actor, 'hall', NOON + HOUR)).troubles;
  const slow = 'Clock # slow; it plays by the server’s.';
  for (const [minute, clockOffsetMs] of [
    [0, 1500],
    [1, 100_000],
    [2, 240_000],
    [3, 1500],
    [4, 300_000],
  ] as const) {
    await tell(NOON + minute * MINUTE, { clockOffsetMs });
    await noteHealth(NOON + minute * MINUTE);
    expect((await since())[slow]).toBe([undefined, NOON + MINUTE, NOON + MINUTE, undefined, NOON + 4 * MINUTE][minute]);
  }
});

test('all screens are told at once: since when, and whether they were dark around this time yesterday', async () => {
  const { actor, tell } = await network();
  await network();
  for (const [minutes, isTold] of [
    [0, true],
    [20, false],
    [60, true],
  ] as const) {
    const at = NOON + minutes * MINUTE;
    if (isTold) await tell(at);
    await noteHealth(at);
  }
  const hall = async (at: number) => (await screensOverview(actor, at)).find(({ id }) => id === 'hall');
  const asked = NOON + 24 * HOUR;
  expect(await hall(asked)).toEqual({
    ...{ id: 'hall', since: NOON + HOUR, wasDarkYesterday: true, software: 'test 1' },
    ...{ clockMs: 1500, usedBytes: 25, limitBytes: 100, temperature: 41 },
  });
  // Dark from 12:20 to 13:00, seen half an hour around: 11:49 is too early for it, 13:31 too late.
  expect((await hall(asked - 11 * MINUTE))?.wasDarkYesterday).toBe(false);
  expect((await hall(asked + 91 * MINUTE))?.wasDarkYesterday).toBe(false);
  expect((await hall(asked + 89 * MINUTE))?.wasDarkYesterday).toBe(true);
  expect((await screensOverview(actor, asked)).map(({ id }) => id)).toEqual(['deck', 'hall']);
});

test('who has an overview already gets what differs from it: nothing while players only beat, nor of another network', async () => {
  const [{ actor, tell }, other] = [await network(), await network()];
  await tell(NOON);
  const first = await overviewNews(actor, null, NOON);
  expect([first.from, first.rows.map(({ id }) => id)]).toEqual([null, ['deck', 'hall']]);
  // It beats, with a clock that is off by a little more and some bytes more in its store.
  await tell(NOON + MINUTE, { clockOffsetMs: 1512, storage: { usedBytes: 24.7, limitBytes: 100 } });
  expect(await overviewNews(actor, first.version, NOON)).toEqual({
    ...{ version: first.version, from: first.version, rows: [], gone: [] },
  });
  await tell(NOON + 2 * MINUTE, { hardware: { temperature: 62.4 } });
  await edit(actor, [{ kind: 'screen', id: 'deck', remove: true }]);
  const next = await overviewNews(actor, first.version, NOON);
  expect(next.rows).toMatchObject([{ id: 'hall', temperature: 62 }]);
  expect(next.gone).toEqual(['deck']);
  expect((await overviewNews(other.actor, first.version, NOON)).from).toBeNull();
});
