import { rows } from '@/database';
import type { Report } from '@/protocol/schemas';
import type { Actor } from '../people';
import { edit, lastChange } from '../plan';
import { flushHeartbeats, heartbeat, type Player } from '../screens';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { pairedPlayer } from '../tests/players';
import {
  arrivals,
  editions,
  noteReached,
  planEdition,
  publishAgain,
  publishDue,
  publishEdition,
  publishedPrograms,
  plannedEditions,
} from '.';
import { countArrivals } from './arrivals';

useDatabase();

const REPORT: Report = {
  ...{ edition: 1, program: null, state: 'playing', playing: null, software: 'test', clockOffsetMs: 0 },
  ...{ storage: null, download: null, errors: [] },
};

/** A network with a published edition, and a player in its hall. */
async function network(): Promise<{ actor: Actor; player: Player }> {
  const actor = await newNetwork();
  await newPlan(actor);
  await publish(actor);
  return { actor, player: await pairedPlayer(actor, 'hall') };
}

const publish = async (actor: Actor) => publishEdition(actor, await lastChange(actor.networkId));
const beat = async (player: Player, program: string | null | undefined) => {
  heartbeat(player, { ...REPORT, program: program ?? null });
  await flushHeartbeats();
};
const programOf = async (actor: Actor) => (await publishedPrograms(actor.networkId)).get('hall');
/** The hall is dark from an hour on: another program. */
const lightsOut = (actor: Actor, from: string) =>
  edit(actor, [
    {
      kind: 'screen',
      id: 'hall',
      set: {
        name: 'Hall',
        site: 'quay',
        width: 1920,
        height: 1080,
        tags: ['hall'],
        lightsOut: [{ windows: [[from, '05:00']] }],
      },
    },
  ]);

test('an edition has arrived where its program was heard to play; the first time is kept', async () => {
  const { actor, player } = await network();
  expect(await arrivals(actor, 1)).toEqual([
    { screen: 'deck', at: null },
    { screen: 'hall', at: null },
  ]);
  await beat(player, null);
  await beat(player, 'f'.repeat(64));
  expect((await editions(actor))[0]).toMatchObject({ touched: 2, reached: 0, reachedAt: null });
  await beat(player, await programOf(actor));
  const [first, second] = await arrivals(actor, 1);
  expect(second).toEqual({ screen: 'deck', at: null });
  expect(first).toEqual({ screen: 'hall', at: expect.stringMatching(/^20/) as string });
  // Another process hears it too, and knows nothing of this one.
  const later = Date.now() + 3_600_000;
  await noteReached([{ player: player.id, program: (await programOf(actor)) ?? '', seen: later }]);
  expect((await arrivals(actor, 1))[0]).toEqual(first);
  await rows("UPDATE edition_screens SET reached_at = reached_at - interval '1 hour'");
  const [kept] = await arrivals(actor, 1);
  await beat(player, null);
  await beat(player, await programOf(actor));
  expect(await arrivals(actor, 1)).toEqual([kept, second]);
  expect((await editions(actor))[0]).toMatchObject({ touched: 2, reached: 1, reachedAt: kept?.at });
});

test('what a player never took up is told of that edition for ever, and of the next that it plays all along at once', async () => {
  const { actor, player } = await network();
  const before = await programOf(actor);
  await beat(player, before);
  await lightsOut(actor, '23:00');
  await publish(actor);
  expect(await programOf(actor)).not.toBe(before);
  await beat(player, before);
  expect(await arrivals(actor, 2)).toEqual([{ screen: 'hall', at: null }]);
  await publishAgain(actor, 1);
  expect(await programOf(actor)).toBe(before);
  // This process hears of the edition in its own time.
  while ((await arrivals(actor, 3))[0]?.at === null) await beat(player, before);
  const listed = await editions(actor);
  expect(listed.map(({ number, touched, reached }) => ({ number, touched, reached }))).toEqual([
    { number: 3, touched: 1, reached: 1 },
    { number: 2, touched: 1, reached: 0 },
    { number: 1, touched: 2, reached: 1 },
  ]);
  // What is counted once stays so, and is the same; the newest is counted as it is.
  const uncounted = () =>
    rows('SELECT number FROM editions WHERE network_id = $1 AND touched IS NULL ORDER BY number', [actor.networkId]);
  await countArrivals(new Date());
  expect(await uncounted()).toEqual([{ number: 1 }, { number: 2 }, { number: 3 }]);
  await countArrivals(new Date(Date.now() + 61_000));
  expect(await uncounted()).toEqual([{ number: 3 }]);
  expect(await editions(actor)).toEqual(listed);
});

test('one that was planned and is due has arrived though it has no number yet', async () => {
  const { actor, player } = await network();
  await lightsOut(actor, '22:00');
  await planEdition(actor, await lastChange(actor.networkId), Date.now() + 3_600_000);
  const [planned] = await plannedEditions(actor);
  await rows("UPDATE editions SET planned_for = now() - interval '1 second' WHERE id = $1", [planned?.id]);
  const [row] = await rows<{ hash: string }>(
    "SELECT hash FROM edition_screens WHERE edition_id = $1 AND screen = 'hall'",
    [planned?.id],
  );
  await beat(player, row?.hash);
  await publishDue(new Date());
  expect(await arrivals(actor, 2)).toEqual([{ screen: 'hall', at: expect.stringMatching(/^20/) as string }]);
});

test('it is no affair of another network, and an edition that there is not is not found', async () => {
  const { actor, player } = await network();
  const other = await network();
  await beat(player, await programOf(other.actor));
  expect((await editions(other.actor))[0]).toMatchObject({ reached: 0 });
  await expect(arrivals(actor, 7)).rejects.toMatchObject({ status: 404 });
});
