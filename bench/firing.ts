import { quantile } from 'd3-array';
import { planFile } from '@/core/plan';
import { allClear, planEdition, publishEdition } from '@/services/editions';
import { addPerson, makeKey, type Actor } from '@/services/people';
import { createNetwork, edit, lastChange } from '@/services/plan';
import { print } from './figure';
import { generatedNetwork } from './generated-network';
import { bindAgain, withLargeNetwork } from './instance';
import { atRest, crowd, until, type Listener } from './on-time';

const SCREENS = 5000;
const ROUNDS = 5;
const PLANNED = 3;
/** How many screens the other network imports in the meantime, again and again: some 20 000 objects. */
const IMPORTED = 19_000;
const HOUR = 3_600_000;

/** What a program asks of the server, by its key. */
const ask = (url: string, method: string, token: string, body?: string): Promise<Response> =>
  fetch(url, { method, headers: { authorization: `Bearer ${token}` }, ...(body === undefined ? {} : { body }) });

/** Keeps another network busy with imports. Returns the function that stops them. */
async function busyOther(url: string): Promise<() => Promise<number>> {
  const networkId = await createNetwork({ name: 'Other', slug: 'other' });
  const actor = await addPerson(networkId, { name: 'Other', email: 'other@example.org', password: 'a long password' });
  const { token } = await makeKey(actor, { name: 'Imports', rights: ['publish'] });
  const file = planFile(generatedNetwork(IMPORTED));
  const bodies = [file, { ...file, screens: file.screens.slice(0, 10), bookings: [] }].map((one) =>
    JSON.stringify(one),
  );
  let stopped = false;
  let imports = 0;
  const working = (async () => {
    while (!stopped) {
      const response = await ask(`${url}/api/plan`, 'PUT', token, bodies[imports % 2]);
      // On a slow machine an import may take longer than the database allows. It was work all the same.
      if (!response.ok && response.status !== 503) throw new Error(`an import was refused: ${await response.text()}`);
      imports++;
    }
  })();
  return async () => {
    stopped = true;
    await working;
    return imports;
  };
}

/** Waits until each has taken up one program more than it had. */
const oneMore = (listeners: readonly Listener[], had: readonly number[], more: number) =>
  Promise.all(listeners.map((one, i) => until([one], (had[i] ?? 0) + more)));

/** From the press to each of 200 players, in milliseconds; and the all-clear after it. */
async function fired(url: string, token: string, listeners: readonly Listener[]): Promise<number[]> {
  const had = listeners.map(({ takenUp }) => takenUp.length);
  const begun = Date.now();
  const response = await ask(`${url}/api/takeovers/gale/fire`, 'POST', token);
  if (!response.ok) throw new Error(`firing was refused: ${await response.text()}`);
  await oneMore(listeners, had, 1);
  const late = listeners.map(({ takenUp }, i) => (takenUp[had[i] ?? 0] ?? Infinity) - begun);
  await ask(`${url}/api/takeovers/gale/all-clear`, 'POST', token);
  await oneMore(listeners, had, 2);
  return late;
}

async function prepared(actor: Actor): Promise<void> {
  await edit(actor, [
    {
      ...{ kind: 'booking', id: 'gale' },
      add: {
        ...{ name: 'Gale', content: { media: 'picture-1' }, where: 'crowd', priority: 5, takeover: true, onHold: true },
        ...{ created: '2026-01-01T00:00:00Z', when: {} },
      },
    },
  ]);
  await publishEdition(actor, await lastChange(actor.networkId));
}

/** Firing a takeover on 200 players of a network of 5 000 screens: alone, and with editions planned and another network importing. */
export async function firingBench(): Promise<void> {
  await withLargeNetwork(SCREENS, async (page, _browser, url, actor) => {
    // What a browser does with it is its own affair, on another machine.
    await page.close();
    bindAgain();
    const listeners = await crowd(actor, url, { site: 'site-0', media: 'picture-0' });
    await prepared(actor);
    await until(listeners, 1);
    const { token } = await makeKey(actor, { name: 'Gale warnings', rights: ['takeovers'] });
    await atRest(listeners);
    await fired(url, token, listeners);
    await atRest(listeners);
    const alone: number[] = [];
    for (let i = 0; i < ROUNDS; i++) alone.push(...(await fired(url, token, listeners)));
    for (let i = 0; i < PLANNED; i++) {
      await edit(actor, [{ kind: 'booking', id: `b${i}`, set: { priority: (i % 5) + 1, name: `Moved ${i}` } }]);
      await planEdition(actor, await lastChange(actor.networkId), Date.now() + (i + 1) * HOUR);
    }
    const stop = await busyOther(url);
    const busy: number[] = [];
    for (let i = 0; i < ROUNDS; i++) busy.push(...(await fired(url, token, listeners)));
    const imports = await stop();
    for (const { session } of listeners) session.stop();
    await allClear(actor, 'gale').catch(() => undefined);
    const seconds = (list: readonly number[], share: number) => (quantile(list, share) ?? NaN) / 1000;
    for (const [name, share] of [
      ['median', 0.5],
      ['p99', 0.99],
    ] as const) {
      const [value, quiet] = [seconds(busy, share), seconds(alone, share)];
      const what = `the same alone, without ${PLANNED} planned editions and ${imports} imports of another network`;
      print({
        ...{ bench: `firing/${name}-200-players`, value, unit: 's' },
        ...{ reference: { what, value: quiet }, goal: 'ratio < 2', met: value < 2 * quiet },
      });
    }
  });
}
