import { quantile } from 'd3-array';
import { publishEdition } from '@/services/editions';
import { makeKey, type Actor } from '@/services/people';
import { edit, lastChange } from '@/services/plan';
import { print } from './figure';
import { bindAgain, withLargeNetwork } from './instance';
import { atRest, crowd, until, type Listener } from './on-time';

const SCREENS = 5000;
const ROUNDS = 20;
const GIVE_UP_MS = 30_000;
/** So long a cue is on: the next round begins when it is over for everybody. */
const FOR_MS = 1000;

const fire = (url: string, token: string): Promise<Response> =>
  fetch(`${url}/api/cues`, {
    method: 'POST',
    headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json' },
    body: JSON.stringify({ cue: 'greeting', where: 'crowd' }),
  });

/** From the press to each of 200 players, in milliseconds. */
async function fired(url: string, token: string, listeners: readonly Listener[]): Promise<number[]> {
  const begun = Date.now();
  const response = await fire(url, token);
  if (!response.ok) throw new Error(`firing was refused: ${await response.text()}`);
  const heard = ({ firedAt }: Listener) => firedAt.find((at) => at >= begun);
  while (listeners.some((one) => heard(one) === undefined)) {
    if (Date.now() - begun > GIVE_UP_MS) throw new Error('not all players heard of it');
    await new Promise((later) => setTimeout(later, 5));
  }
  return listeners.map((one) => (heard(one) ?? Infinity) - begun);
}

/** How long the same players take to ask for their target, all at once, in milliseconds. */
async function asked(listeners: readonly Listener[]): Promise<number> {
  const begun = Date.now();
  await Promise.all(listeners.map(({ client }) => client.target()));
  return Date.now() - begun;
}

async function prepared(actor: Actor): Promise<void> {
  await edit(actor, [
    { kind: 'cue', id: 'greeting', add: { name: 'Greeting' } },
    {
      ...{ kind: 'booking', id: 'greeting' },
      add: {
        ...{ name: 'Greeting', content: { media: 'picture-1' }, where: 'crowd', priority: 5 },
        ...{ created: '2026-01-01T00:00:00Z', when: {}, cue: 'greeting', forMs: FOR_MS },
      },
    },
  ]);
  await publishEdition(actor, await lastChange(actor.networkId));
}

/** Firing a cue on 200 players of a network of 5 000 screens, over HTTP: from the press to each player that counts it. */
export async function cuesBench(): Promise<void> {
  await withLargeNetwork(SCREENS, async (page, _browser, url, actor) => {
    await page.close();
    bindAgain();
    const gateway = new URL(url);
    gateway.port = String(Number(gateway.port) + 1);
    const listeners = await crowd(actor, gateway.origin, { site: 'site-0', media: 'picture-0' });
    await until(listeners, 1);
    await prepared(actor);
    const { token } = await makeKey(actor, { name: 'Greetings', rights: ['cues'] });
    await atRest(listeners);
    await fired(url, token, listeners);
    const [times, bare]: [number[], number[]] = [[], []];
    for (let i = 0; i < ROUNDS; i++) {
      // No more than ten in ten seconds are let through.
      await new Promise((later) => setTimeout(later, 2 * FOR_MS));
      bare.push(await asked(listeners));
      times.push(...(await fired(url, token, listeners)));
    }
    for (const { session } of listeners) session.stop();
    const seconds = (list: readonly number[], share: number) => (quantile(list, share) ?? NaN) / 1000;
    const reference = { what: 'the same players ask for their target once', value: seconds(bare, 0.5) };
    const [median, p99] = [seconds(times, 0.5), seconds(times, 0.99)];
    print({ bench: 'cues/median-200-players', value: median, unit: 's', reference, goal: '< 1 s', met: median < 1 });
    print({ bench: 'cues/p99-200-players', value: p99, unit: 's', reference, goal: '< 3 s', met: p99 < 3 });
  });
}
