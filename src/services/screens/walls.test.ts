import { PairingRow, rows } from '@/database';
import type { Report } from '@/protocol/schemas';
import { commandOf, noteOutcomes, pendingCommands, recentCommands, sendCommand } from '../commands';
import { arrivals, publishEdition } from '../editions';
import type { Actor } from '../people';
import { edit, lastChange } from '../plan';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { refusal } from '../tests/refusal';
import {
  collectToken,
  flushHeartbeats,
  heartbeat,
  pairScreen,
  playerOf,
  screenStatuses,
  startPairing,
  targetOf,
  unpairScreen,
  type Player,
} from '.';
import { StatusBoard } from './states';

useDatabase();

const WALL = { rows: 2, columns: 2, widthMm: 1000, heightMm: 500, betweenMm: 0 };

async function pair(actor: Actor, place: string): Promise<Player> {
  const { deviceCode, userCode } = await startPairing('10.1.1.1');
  await pairScreen(actor, place, userCode, '10.1.1.2');
  const collected = await collectToken(deviceCode);
  const player = typeof collected === 'string' ? null : await playerOf(collected.token);
  if (!player) throw new Error('it was not paired');
  return player;
}

/** A network whose hall is a wall of four, published, with its first players. */
async function network(players: number) {
  const actor = await newNetwork();
  await newPlan(actor);
  await edit(actor, [{ kind: 'screen', id: 'hall', set: { wall: WALL } }]);
  await publishEdition(actor, await lastChange(actor.networkId));
  const list: Player[] = [];
  while (list.length < players) list.push(await pair(actor, 'hall'));
  return { actor, players: list };
}

async function beat(player: Player | undefined, values: Partial<Report> = {}) {
  if (!player) throw new Error('no player');
  const { program } = await targetOf(player);
  heartbeat(player, {
    ...{ state: 'playing', edition: 1, program, playing: null, download: null, clockOffsetMs: 0, storage: null },
    ...{ errors: [], software: 'test', ...values },
  });
  await flushHeartbeats();
}

const wallOf = async (actor: Actor) => (await screenStatuses(actor)).find(({ id }) => id === 'hall');

test('a wall’s players get its displays in order, or the one that is named, and each is told its part of the picture', async () => {
  const { actor, players } = await network(2);
  expect(players.map(({ part }) => part)).toEqual([1, 2]);
  const last = await pair(actor, 'hall/4');
  expect((await targetOf(last)).screen).toMatchObject({
    id: 'hall',
    part: { number: 4, row: 2, column: 2, left: 0.5, top: 0.5, width: 0.5, height: 0.5 },
  });
  expect((await pair(actor, 'hall')).part).toBe(3);
  const { userCode } = await startPairing('10.1.1.1');
  expect(await refusal(pairScreen(actor, 'hall', userCode, '10.1.1.2'))).toBe(
    '422 All displays of this wall have a player. Say which one to replace, like “hall/1”.',
  );
  expect(await refusal(pairScreen(actor, 'hall/5', userCode, '10.1.1.2'))).toMatch(/^404/);
  expect(await refusal(pairScreen(actor, 'deck/2', userCode, '10.1.1.2'))).toMatch(/^404/);
  // Codes that are typed before the players before them have their tokens go to the next displays.
  const other = await network(0);
  const codes = await Promise.all([1, 2].map(async () => (await startPairing('10.1.1.1')).userCode));
  for (const code of [...codes, codes[1] ?? '']) await pairScreen(other.actor, 'hall', code, '10.1.1.2');
  const parts = await PairingRow.findAll({ where: { userCode: codes.map((code) => code.replace('-', '')) } });
  expect(parts.map(({ part }) => part).sort()).toEqual([1, 2]);
  // Another player of one display leaves the others alone.
  await pairScreen(actor, 'hall/1', userCode, '10.1.1.2');
  expect((await wallOf(actor))?.parts?.filter(({ state }) => state !== 'unpaired')).toHaveLength(4);
});

test('it is as the worst of its displays, which is named; with all of them lit it is lit', async () => {
  const { actor, players } = await network(3);
  expect((await wallOf(actor))?.state).toBe('dark');
  for (const player of players) await beat(player);
  expect(await wallOf(actor)).toMatchObject({ state: 'dark', troubles: ['Row 2, column 2 has no player.'] });
  const fourth = await pair(actor, 'hall');
  expect((await wallOf(actor))?.troubles).toEqual(['Row 2, column 2 is dark.']);
  await beat(fourth);
  expect(await wallOf(actor)).toMatchObject({ state: 'lit', troubles: [] });
  await beat(players[1], { clockOffsetMs: 40_000 });
  expect((await wallOf(actor))?.troubles).toEqual(['Row 1, column 2: Clock 40 s slow; it plays by the server’s.']);
  for (const player of [...players, fourth]) await beat(player, { hardware: { blank: true } });
  expect((await wallOf(actor))?.troubles).toEqual([
    'Blanked by a person. Choose “Show again” under Commands to end it.',
  ]);
  await unpairScreen(actor, 'hall/2');
  expect((await wallOf(actor))?.troubles[0]).toBe('Row 1, column 2 has no player.');
  await unpairScreen(actor, 'hall');
  expect(await wallOf(actor)).toMatchObject({ state: 'unpaired', troubles: [] });
});

test('what one display tells changes the wall’s status alone, as everybody sees it', async () => {
  const { actor, players } = await network(4);
  for (const player of players) await beat(player);
  const board = new StatusBoard(actor.networkId);
  expect((await board.load()).statuses.find(({ id }) => id === 'hall')?.state).toBe('lit');
  await beat(players[2], { program: 'f'.repeat(64) });
  const { statuses } = await board.hear();
  expect(statuses.map(({ id, state }) => `${id} ${state}`)).toEqual(['hall behind']);
  expect(statuses[0]?.parts?.map(({ state }) => state)).toEqual(['lit', 'lit', 'behind', 'lit']);
});

test('an edition has arrived when all of its displays show it', async () => {
  const { actor, players } = await network(2);
  const arrived = async () => (await arrivals(actor, 1)).filter(({ screen }) => screen === 'hall').map(({ at }) => at);
  await beat(players[0]);
  expect(await arrived()).toEqual([null]);
  await beat(players[1]);
  expect(await arrived()).toEqual([expect.any(String)]);
});

test('a command is done by each display, once; the wall is done when the last one is', async () => {
  const { actor, players } = await network(2);
  const [first, second] = players as [Player, Player];
  const { command } = await sendCommand(actor, { kind: 'reload', screens: ['hall'] });
  expect(command.screens.map(({ part }) => part)).toEqual([1, 2]);
  await noteOutcomes(first, [{ id: command.id, state: 'done' }]);
  expect([await pendingCommands(first), await pendingCommands(second)]).toMatchObject([[], [{ id: command.id }]]);
  expect((await recentCommands(actor))[0]?.states).toMatchObject([{ state: 'waiting', screens: 1 }]);
  await noteOutcomes(second, [{ id: command.id, state: 'failed', said: 'No.' }]);
  expect((await recentCommands(actor))[0]).toMatchObject({
    states: [{ state: 'failed', screens: 1 }],
    failed: [{ screen: 'hall', said: 'No.' }],
  });
  expect((await commandOf(actor, command.id)).screens.map(({ state }) => state)).toEqual(['done', 'failed']);
});

test('a player that waits again and is given another display of its wall leaves the one that it had', async () => {
  const { actor } = await network(0);
  const token = async (place: string, was?: string) => {
    const { deviceCode, userCode } = await startPairing('10.1.1.1', undefined, was);
    await pairScreen(actor, place, userCode, '10.1.1.2');
    const collected = await collectToken(deviceCode);
    return typeof collected === 'string' ? collected : collected.token;
  };
  const first = await token('hall/1');
  const third = await token('hall/3', first);
  expect([await playerOf(first), (await playerOf(third))?.part]).toEqual([null, 3]);
  expect(await rows('SELECT part FROM players WHERE network_id = $1', [actor.networkId])).toEqual([{ part: 3 }]);
});
