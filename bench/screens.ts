import { quantile } from 'd3-array';
import pLimit from 'p-limit';
import { rows } from '@/database';
import { commandOf, sendCommand } from '@/services/commands';
import { newestGlimpses } from '@/services/glimpses';
import type { Actor } from '@/services/people';
import { print } from './figure';
import { bindAgain, withLargeNetwork } from './instance';
import { atRest, crowd, until, type Listener } from './on-time';

const SCREENS = 5000;
const COMMANDED = 1000;
const ROUNDS = 5;
const GLIMPSED = 20;
const GIVE_UP_MS = 60_000;

/** From sending a command to each player's outcome, in milliseconds, by the server's clock. */
async function commanded(actor: Actor): Promise<number[]> {
  const { command } = await sendCommand(actor, { kind: 'identify', where: 'crowd' });
  const end = Date.now() + GIVE_UP_MS;
  // By a number alone: to read a thousand outcomes again and again would take the processor from the players.
  for (let open = 1; open > 0;) {
    if (Date.now() > end) throw new Error('not all players did the command');
    await new Promise((later) => setTimeout(later, 200));
    const [row] = await rows<{ open: number }>(
      'SELECT count(*)::int AS open FROM command_screens WHERE command_id = $1 AND ended_at IS NULL',
      [command.id],
    );
    open = row?.open ?? 0;
  }
  const { screens, sentAt } = await commandOf(actor, command.id);
  return screens.map(({ endedAt }) => Date.parse(endedAt ?? '') - Date.parse(sentAt));
}

/** From asking for a picture of one screen to its place beside what was planned, in milliseconds. */
async function glimpsed(actor: Actor, screen: string): Promise<number> {
  const begun = Date.now();
  await sendCommand(actor, { kind: 'glimpse', screens: [screen] });
  for (;;) {
    const [newest] = await newestGlimpses(actor, [screen]);
    if (newest && newest.verdict !== null && Date.parse(newest.takenAt) >= begun - 1000) return Date.now() - begun;
    if (Date.now() - begun > GIVE_UP_MS) throw new Error('no picture came');
    await new Promise((later) => setTimeout(later, 20));
  }
}

/** How long the same players take to ask for their target, a hundred at a time, in milliseconds. */
const asked = (listeners: readonly Listener[]): Promise<number[]> => {
  const begun = Date.now();
  const lane = pLimit(100);
  return Promise.all(listeners.map(({ client }) => lane(() => client.target()).then(() => Date.now() - begun)));
};

/** A command to a thousand players of a network of 5 000 screens, from sending it to each outcome; and pictures of some of them. */
export async function screensBench(): Promise<void> {
  await withLargeNetwork(SCREENS, async (page, _browser, url, actor) => {
    await page.close();
    bindAgain();
    // Players have a gateway of their own, on the next port.
    const gateway = new URL(url);
    gateway.port = String(Number(gateway.port) + 1);
    const listeners = await crowd(actor, gateway.origin, { site: 'site-0', media: 'picture-0', size: COMMANDED });
    await until(listeners, 1);
    await atRest(listeners);
    await commanded(actor);
    const [times, bare]: [number[], number[]] = [[], []];
    for (let i = 0; i < ROUNDS; i++) {
      bare.push(...(await asked(listeners)));
      times.push(...(await commanded(actor)));
    }
    const pictures: number[] = [];
    for (let i = 0; i < GLIMPSED; i++) pictures.push(await glimpsed(actor, `crowd-${i}`));
    for (const { session } of listeners) session.stop();
    const seconds = (list: readonly number[], share: number) => (quantile(list, share) ?? NaN) / 1000;
    for (const [name, share, goal] of [
      ['median', 0.5, 1],
      ['p99', 0.99, 3],
    ] as const) {
      const value = seconds(times, share);
      const what = 'the same players ask for their target once, a hundred at a time';
      print({
        ...{ bench: `screens/command-${name}-${COMMANDED}-players`, value, unit: 's' },
        ...{ reference: { what, value: seconds(bare, share) }, goal: `< ${goal} s`, met: value < goal },
      });
    }
    const value = seconds(pictures, 0.5);
    print({
      ...{ bench: 'screens/glimpse-median', value, unit: 's', goal: '< 5 s', met: value < 5 },
      reference: { what: 'the same players ask for their target once, a hundred at a time', value: seconds(bare, 0.5) },
    });
  });
}
