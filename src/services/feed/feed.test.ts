import { withPatches } from '@/core/plan';
import { rows, transaction } from '@/database';
import { publishEdition } from '../editions';
import { useBus } from '../tests/bus';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { changesSince, draftPlan, edit, lastChange, loadPlan } from '../plan';
import { collectToken, flushHeartbeats, heartbeat, pairScreen, playerOf, startPairing, unpairScreen } from '../screens';
import { followNetwork, knownStatuses, missedSince, type FeedEvent } from '.';

useDatabase();

useBus();

const until = async (holds: () => boolean | Promise<boolean>) => {
  for (let tries = 0; tries < 600 && !(await holds()); tries++) await new Promise((done) => setTimeout(done, 50));
  expect(await holds()).toBe(true);
};

const follow = (actor: Parameters<typeof followNetwork>[0]) => {
  const events: FeedEvent[] = [];
  const stop = followNetwork(actor, (event) => events.push(event));
  const of = <K extends FeedEvent['kind']>(kind: K) =>
    events.filter((one): one is Extract<FeedEvent, { kind: K }> => one.kind === kind);
  return { events, of, stop };
};

test('changes are told with their numbers, and lead from one plan to the next', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const before = await draftPlan(actor);
  const { of, stop } = follow(actor);
  await until(() => of('at').length === 1);
  expect(of('at')[0]?.change).toBe(before.change);
  await edit(actor, [
    { kind: 'screen', id: 'hall', set: { name: 'Great hall', tags: null } },
    { kind: 'playlist', id: 'house', set: { items: [{ collect: 'a' }, { collect: 'b' }] } },
  ]);
  await edit(actor, [{ kind: 'screen', id: 'deck', remove: true }]);
  await until(() => of('changes').flatMap((one) => one.changes).length === 3);
  let { plan, change } = before;
  for (const event of of('changes')) {
    expect(event.after).toBe(change);
    plan = withPatches(
      plan,
      event.changes.map((one) => one.patch),
    );
    change = event.number;
    expect(event.changes.every((one) => one.by === actor.name)).toBe(true);
  }
  expect(plan).toEqual(await loadPlan(actor.networkId));
  expect((await draftPlan(actor)).plan).toEqual(plan);
  await until(() => of('docket').at(-1)?.change === change);
  stop();
});

const WAITING = "SELECT 1 FROM pg_locks WHERE NOT granted AND relation = 'editions'::regclass";

test('nobody waits for a docket that is still being counted', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const { of, stop } = follow(actor);
  await until(() => of('at').length === 1);
  const rename = (name: string) => edit(actor, [{ kind: 'playlist', id: 'house', set: { name } }]);
  await rename('Before');
  await until(() => of('docket').length === 1);
  await transaction(async (within) => {
    // Counting asks for the newest edition first, and waits here.
    await rows('LOCK TABLE editions IN ACCESS EXCLUSIVE MODE', [], within);
    await rename('First');
    await until(() => of('changes').length === 2);
    await until(async () => (await rows(WAITING)).length > 0);
    await rename('Second');
    await until(() => of('changes').length === 3);
    expect(of('docket')).toHaveLength(1);
  });
  await until(() => of('docket').at(-1)?.change === of('changes').at(-1)?.number);
  stop();
});

test('one network is told nothing of another', async () => {
  const [ours, theirs] = [await newNetwork(), await newNetwork()];
  await newPlan(theirs);
  const mine = follow(ours);
  const their = follow(theirs);
  await until(() => mine.of('at').length === 1 && their.of('at').length === 1);
  await edit(theirs, [{ kind: 'screen', id: 'hall', set: { name: 'Secret' } }]);
  await until(() => their.of('changes').length === 1 && their.of('docket').length === 1);
  expect(mine.events.map((one) => one.kind)).toEqual(['at']);
  expect((await missedSince(ours, { change: 0, at: 0 })).statuses).toEqual([]);
  mine.stop();
  their.stop();
});

test('beats of players that change nothing are not told; a state that differs is, alone', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  await publishEdition(actor, await lastChange(actor.networkId));
  const { deviceCode, userCode } = await startPairing('10.0.0.1');
  await pairScreen(actor, 'hall', userCode, '10.0.0.1');
  const collected = await collectToken(deviceCode);
  const player = await playerOf(typeof collected === 'string' ? '' : collected.token);
  if (!player) throw new Error('no player');
  const [target] = await rows<{ hash: string }>(
    "SELECT hash FROM edition_screens s JOIN editions e ON e.id = s.edition_id WHERE e.network_id = $1 AND s.screen = 'hall'",
    [actor.networkId],
  );
  const beat = async (program: string | null) => {
    heartbeat(player, {
      ...{ state: 'playing', edition: 1, program, playing: null, download: null, clockOffsetMs: 0 },
      ...{ storage: null, errors: [], software: 'test' },
    });
    await flushHeartbeats();
  };
  const { of, stop } = follow(actor);
  await until(() => of('at').length === 1);
  const begun = Date.now();
  await beat(target?.hash ?? '');
  await until(() => of('statuses').length === 1);
  expect(of('statuses')[0]?.statuses).toMatchObject([{ id: 'hall', state: 'lit', lastSeen: null }]);
  for (let i = 0; i < 3; i++) await beat(target?.hash ?? '');
  await beat('b'.repeat(64));
  await until(() => of('statuses').length === 2);
  expect(of('statuses')[1]?.statuses).toMatchObject([{ id: 'hall', state: 'behind' }]);
  // A page that was loaded meanwhile has what was told, and asks for no more than what is newer.
  expect((await knownStatuses(actor)).find((one) => one.id === 'hall')?.state).toBe('behind');
  const missed = await missedSince(actor, { change: await lastChange(actor.networkId), at: begun });
  expect(missed.statuses.map((one) => one.id)).toEqual(['hall']);
  await unpairScreen(actor, 'hall');
  await until(() => of('statuses').at(-1)?.statuses[0]?.state === 'unpaired');
  stop();
});

test('a page that begins to listen learns of an edition, and of the docket as it was counted', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const missed = async () => missedSince(actor, { change: await lastChange(actor.networkId), at: 0 });
  expect(await missed()).toMatchObject({ edition: 0, docket: null });
  // It was counted for whoever asked.
  await until(async () => (await missed()).docket !== null);
  expect((await missed()).docket).toMatchObject({ change: await lastChange(actor.networkId), screens: 2 });
  await publishEdition(actor, await lastChange(actor.networkId));
  await until(async () => (await missed()).docket?.entries === 0);
  expect(await missed()).toMatchObject({ edition: 1, docket: { entries: 0, screens: 0 } });
});

test('a page that is too far behind is told to load anew', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const since = await lastChange(actor.networkId);
  const many = Array.from({ length: 501 }, (_, i) => ({
    kind: 'playlist' as const,
    add: { name: `L${i}`, items: [] },
  }));
  await edit(actor, many.slice(0, 500));
  expect((await changesSince(actor.networkId, since))?.changes).toHaveLength(500);
  await edit(actor, many.slice(500));
  expect(await changesSince(actor.networkId, since)).toBeNull();
  expect((await missedSince(actor, { change: since, at: 0 })).changes).toBeNull();
});
