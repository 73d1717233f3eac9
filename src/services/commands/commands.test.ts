import { HOUR, MINUTE } from '@/core/instant';
import { rows } from '@/database';
import type { Actor } from '../people';
import { playerBackend } from '../screens';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { refusal } from '../tests/refusal';
import { pairedPlayer } from '../tests/players';
import { cancelCommand, clearCommands, commandOf, noteOutcomes, pendingCommands, recentCommands, sendCommand } from '.';

useDatabase();

/** A network of two screens, the hall with a player. */
async function network() {
  const actor = await newNetwork();
  await newPlan(actor);
  return { actor, player: await pairedPlayer(actor, 'hall') };
}
const stateOf = async (actor: Actor, id: string) =>
  (await commandOf(actor, id)).screens.map(({ state }) => state).join();

test('a command reaches the player of its screen, is received and done, and keeps its first outcome', async () => {
  const { actor, player } = await network();
  const { command, withoutPlayer } = await sendCommand(actor, { kind: 'identify', where: 'all' });
  expect([command.screens.length, withoutPlayer]).toEqual([1, 1]);
  const { commands = [] } = await playerBackend.targetOf(player);
  expect(commands).toMatchObject([{ id: command.id, kind: 'identify', site: 'Quay', number: 2 }]);
  expect(await stateOf(actor, command.id)).toBe('waiting');
  await noteOutcomes(player, [{ id: command.id, state: 'received' }]);
  expect(await stateOf(actor, command.id)).toBe('received');
  expect(await pendingCommands(player)).toHaveLength(1);
  await noteOutcomes(player, [{ id: command.id, state: 'failed', said: 'The cable is out.' }]);
  await noteOutcomes(player, [{ id: command.id, state: 'done' }]);
  expect((await commandOf(actor, command.id)).screens[0]).toMatchObject({ state: 'failed', said: 'The cable is out.' });
  expect(await pendingCommands(player)).toEqual([]);
  expect(await recentCommands(actor)).toMatchObject([
    {
      ...{ id: command.id, kind: 'identify', by: actor.name, byKey: false },
      ...{ states: [{ state: 'failed', screens: 1 }], failed: [{ screen: 'hall', said: 'The cable is out.' }] },
    },
  ]);
  expect(await recentCommands(actor, ['deck'])).toEqual([]);
});

test('it is kept for a screen that is away until it expires; done in time and told late it counts, else it was too late', async () => {
  const { actor, player } = await network();
  const before = Date.now() - HOUR;
  const { command } = await sendCommand(actor, { kind: 'blank', screens: ['hall'], keptMs: HOUR / 2 }, {}, before);
  expect(await pendingCommands(player)).toEqual([]);
  expect(await stateOf(actor, command.id)).toBe('late');
  await noteOutcomes(player, [{ id: command.id, state: 'done' }]);
  expect(await stateOf(actor, command.id)).toBe('done');
});

test('several are spread over time; what is cancelled is not done, and nothing that was done is cancelled', async () => {
  const { actor, player } = await network();
  const deck = await pairedPlayer(actor, 'deck');
  const now = Date.now();
  const { command } = await sendCommand(actor, { kind: 'reload', where: 'all', spreadMs: 10 * MINUTE }, {}, now);
  expect(command.screens.map(({ dueAt }) => Date.parse(dueAt) - now).sort((a, b) => a - b)).toEqual([0, 10 * MINUTE]);
  await noteOutcomes(player, [{ id: command.id, state: 'done' }]);
  await cancelCommand(actor, command.id);
  expect((await stateOf(actor, command.id)).split(',').sort()).toEqual(['cancelled', 'done']);
  expect(await refusal(cancelCommand(actor, command.id))).toMatch(/^409 Nothing is left to cancel/);
  // It was done just before: the player’s word was on its way.
  await noteOutcomes(deck, [{ id: command.id, state: 'done' }]);
  expect(await stateOf(actor, command.id)).toBe('done,done');
});

test('the same idempotency key sends once, and another command under it is refused', async () => {
  const { actor } = await network();
  const send = (kind: string, percent?: number) =>
    sendCommand(actor, { kind, percent, where: 'all' }, { byKey: true, idempotencyKey: 'k1' });
  const [a, b] = await Promise.all([send('volume', 40), send('volume', 40)]);
  expect(a.command.id).toBe(b.command.id);
  for (const other of [send('blank'), send('volume', 50)])
    expect(await refusal(other)).toMatch(/^422 This idempotency key has sent “Volume 40 %”/);
  expect(await recentCommands(actor)).toHaveLength(1);
});

test('a player notes what is its own alone, and another network sees and cancels nothing', async () => {
  const { actor, player } = await network();
  const other = await network();
  const { command } = await sendCommand(actor, { kind: 'show', where: 'all' });
  await noteOutcomes(other.player, [{ id: command.id, state: 'done' }]);
  expect(await stateOf(actor, command.id)).toBe('waiting');
  expect(await pendingCommands(other.player)).toEqual([]);
  expect(await recentCommands(other.actor)).toEqual([]);
  expect(await refusal(commandOf(other.actor, command.id))).toMatch(/^404/);
  expect(await refusal(cancelCommand(other.actor, command.id))).toMatch(/^404/);
  expect((await pendingCommands(player)).map(({ id }) => id)).toEqual([command.id]);
});

test('old commands are deleted, newer ones stay', async () => {
  const { actor } = await network();
  await sendCommand(actor, { kind: 'show', where: 'all' }, {}, Date.now() - 91 * 24 * HOUR);
  const { command } = await sendCommand(actor, { kind: 'show', where: 'all' });
  expect(await clearCommands(new Date())).toBeGreaterThan(0);
  expect((await recentCommands(actor)).map(({ id }) => id)).toEqual([command.id]);
  expect(await rows('SELECT 1 FROM command_screens WHERE network_id = $1', [actor.networkId])).toHaveLength(1);
});

test.each([
  [{ kind: 'dance', where: 'all' }, '422 Choose a command: identify, glimpse, reload, restart'],
  [{ kind: 'volume', where: 'all' }, '422 Write a whole number from 0 to 100.'],
  [{ kind: 'volume', percent: 101, where: 'all' }, '422 Write a whole number from 0 to 100.'],
  [{ kind: 'turn', degrees: 45, where: 'all' }, '422 Choose 0, 90, 180 or 270 degrees.'],
  [{ kind: 'input', where: 'all' }, '422 Say which input, such as “hdmi-1”.'],
  [{ kind: 'show', input: 'hdmi-1', where: 'all' }, '422 “Show again” takes no “input”. Leave it out.'],
  [{ kind: 'show', percent: 4, where: 'all' }, '422 “Show again” takes no “percent”. Leave it out.'],
  [{ kind: 'show' }, '422 Say which screens: either by their ids in “screens”, or by a selector in “where”.'],
  [{ kind: 'show', where: 'nowhere-at-all' }, '422 No screen matches “nowhere-at-all”. Choose other screens.'],
  [{ kind: 'show', screens: ['none'] }, '422 There is no screen “none”. Check its id.'],
  [{ kind: 'show', screens: ['deck'] }, '422 This screen has no player. Pair one first.'],
  [{ kind: 'show', where: 'all', keptMs: 8 * 24 * HOUR }, '422 A command is kept for 7 days at most.'],
])('%j is refused with what to write', async (input, said) => {
  const { actor } = await network();
  expect(await refusal(sendCommand(actor, input))).toContain(said);
  expect(await recentCommands(actor)).toEqual([]);
});
