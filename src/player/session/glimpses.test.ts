import type { ProtocolClient } from '@/protocol/client';
import type { Target } from '@/protocol/schemas';
import { Glimpses } from './glimpses';

/** A player at a time of the test's own, and what it sent. */
function player(canTake = true) {
  const world = { now: 1_000_000, glimpses: undefined as Target['glimpses'], isCovered: false };
  const sent: string[] = [];
  const client = {
    glimpse: async (picture: Uint8Array, at: number, program: string | null) =>
      void sent.push(`${picture.length} ${at} ${program}`),
  } as unknown as ProtocolClient;
  const hardware = {
    ...{ abilities: () => [], state: () => ({}), carryOut: () => Promise.resolve() },
    ...(canTake ? { picture: async () => ({ bytes: new Uint8Array(3), isCovered: world.isCovered }) } : {}),
  };
  const target = () => ({ glimpses: world.glimpses }) as Target;
  const glimpses = new Glimpses(
    client,
    hardware,
    target,
    () => 'p',
    () => world.now,
  );
  return { world, glimpses, sent };
}

test('a picture is sent with its instant and its program when a person asks, and as often as the target says', async () => {
  const { world, glimpses, sent } = player();
  await glimpses.take();
  await glimpses.takeIfDue();
  expect(sent).toEqual(['3 1000000 p']);
  world.glimpses = { allowed: true, everyMs: 10_000 };
  for (const [now, count] of [
    [1_009_999, 1],
    [1_010_000, 2],
    [1_010_500, 2],
    // The clock was put back by an hour.
    [1_010_000 - 3_600_000, 3],
  ] as const) {
    world.now = now;
    await glimpses.takeIfDue();
    expect(sent).toHaveLength(count);
  }
});

test('something of the player’s own over the program is not taken for the program', async () => {
  const { world, glimpses, sent } = player();
  world.isCovered = true;
  await glimpses.take();
  expect(sent).toEqual(['3 1000000 null']);
});

test('none is taken of a private screen, or by a device that can’t', async () => {
  const { world, glimpses, sent } = player();
  world.glimpses = { allowed: false, everyMs: 1000 };
  expect(glimpses.isAble()).toBe(false);
  await glimpses.takeIfDue();
  await expect(glimpses.take()).rejects.toThrow('No pictures may be taken of this screen.');
  expect(sent).toEqual([]);
  expect(player(false).glimpses.isAble()).toBe(false);
});
