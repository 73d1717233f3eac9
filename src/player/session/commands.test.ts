import type { Command, Outcome } from '@/core/commands';
import { FleetStore } from '@/fleet/store';
import { Commands } from './commands';

const NOW = Date.UTC(2026, 11, 1, 12);
const MINUTE = 60_000;

/** A player with a device of the test's own. `lives` starts it again with what it kept. */
function player(store = new FleetStore(null)) {
  const did: string[] = [];
  const told: Outcome[] = [];
  const device = {
    abilities: () => ['restart', 'volume'] as const,
    state: () => ({}),
    carryOut: ({ kind, percent }: Command): Promise<void> => {
      did.push(percent === undefined ? kind : `${kind} ${percent}`);
      // What ends the player never comes back.
      if (kind === 'restart') return new Promise(() => undefined);
      return kind === 'turn' ? Promise.reject(new Error('The stand is stuck.')) : Promise.resolve();
    },
  };
  const wait = (ms: number, signal: AbortSignal) =>
    new Promise<void>((done) => {
      const timer = setTimeout(done, ms);
      signal.addEventListener('abort', () => (clearTimeout(timer), done()));
    });
  const commands = new Commands(
    ...([store, device, { now: Date.now, random: () => 0.5, wait }, () => Date.now()] as const),
    (outcomes) => told.push(...outcomes),
    {
      abilities: device.abilities,
      clear: async () => void did.push('clear'),
      glimpse: async () => void did.push('glimpse'),
    },
  );
  return {
    store,
    commands,
    did,
    told: () => told.splice(0).map(({ id, state, said }) => [id, state, ...(said ? [said] : [])].join(' ')),
  };
}
const command = (id: string, kind: string, more: Partial<Command> = {}): Command => ({
  ...{ id, kind, at: NOW, expires: NOW + 10 * MINUTE },
  ...more,
});
const go = (ms = 0) => jest.advanceTimersByTimeAsync(ms);

beforeEach(() => jest.useFakeTimers({ now: NOW }));
afterEach(() => jest.useRealTimers());

test('a command is done once however often it is told, and its outcome told until it is no longer listed', async () => {
  const { commands, did, told } = player();
  const list = [command('a', 'volume', { percent: 40 }), command('b', 'clear')];
  commands.follow(list);
  commands.follow(list);
  await go();
  expect(told()).toEqual(['a done', 'b done']);
  commands.follow(list);
  await go();
  expect(told()).toEqual(['a done', 'b done']);
  expect(did).toEqual(['volume 40', 'clear']);
});

test('it waits for its time, and is not done when it is cancelled before, or has expired', async () => {
  const { commands, did, told } = player();
  const [later, gone] = [
    command('later', 'identify', { at: NOW + 5 * MINUTE }),
    command('gone', 'blank', { at: NOW + MINUTE }),
  ];
  commands.follow([later, gone, command('old', 'blank', { expires: NOW })]);
  commands.follow([later]);
  await go(5 * MINUTE - 1);
  expect(did).toEqual([]);
  await go(1);
  expect(did).toEqual(['identify']);
  expect(told()).toEqual(['later received', 'later done']);
  // The device slept past its end.
  commands.follow([command('slept', 'blank', { at: NOW + 6 * MINUTE, expires: NOW + 7 * MINUTE })]);
  jest.setSystemTime(NOW + 8 * MINUTE);
  await go(2 * MINUTE);
  expect([did, told()]).toEqual([['identify'], ['slept received']]);
});

test('what it can’t do, does not know, or fails at is told with the reason', async () => {
  const { commands, did, told } = player();
  commands.follow([
    command('a', 'brightness', { percent: 5 }),
    command('b', 'sing'),
    command('c', 'turn', { degrees: 90 }),
  ]);
  await go();
  expect(told()).toEqual([
    'a failed This display has no brightness control.',
    'b failed This player’s software is too old for this command. Update it.',
    'c failed The stand is stuck.',
  ]);
  expect(did).toEqual(['turn']);
});

test('a restart is done when the player is back, and not again; what was under way as the player ended is told as failed', async () => {
  const before = player();
  const list = [command('r', 'restart')];
  before.commands.follow(list);
  await go(300);
  expect([before.did, before.told()]).toEqual([['restart'], ['r received']]);
  await before.store.save({
    commands: [...(await before.store.load()).commands, { id: 'v', expires: NOW + MINUTE, state: 'begun' }],
  });
  const after = player(before.store);
  after.commands.resume((await before.store.load()).commands);
  after.commands.follow([...list, command('v', 'volume', { percent: 1 })]);
  await go();
  expect(after.told()).toEqual(['r done', 'v failed The player stopped while it did this. Send the command again.']);
  expect(after.did).toEqual([]);
});
