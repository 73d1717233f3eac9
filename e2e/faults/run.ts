import { resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { runningCluster } from '../../scripts/cluster.mjs';
import { closeDatabase, database, rows } from '@/database';
import { Family } from '../../bin/family';
import { removeData, startLanternpost } from '../support/instance';
import { childOf } from '../support/processes';
import { audited, unsettled } from './audit';
import { DOINGS, newLoaded, type Loaded } from './network';

/**
 * `npm run faults [-- --minutes 20]`: two networks under load on two web processes and two gateways with one database, a process killed hard
 * every few seconds at random (web, what compiles, a gateway, the worker, PostgreSQL), and then an audit of everything that was confirmed.
 * Ends by itself; exits 1 where something was lost.
 */

const SETTLED_WITHIN_MS = 180_000;
const HANDS = 4;

const { values } = parseArgs({ options: { minutes: { type: 'string', default: '20' } } });
const minutes = Number(values.minutes);
if (!(minutes > 0 && minutes <= 600)) {
  console.error('Usage: npm run faults -- --minutes N (1 to 600)');
  process.exit(2);
}

/** A worker takes a picture or two in a second: more would only wait. */
const { upload, ...others } = DOINGS;
const OFTEN = [...Object.values(others), ...Object.values(others), ...Object.values(others), upload];

const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));
const anyOf = <T>(list: readonly T[]): T => list[Math.floor(Math.random() * list.length)] as T;

const instance = await startLanternpost('faults', 4440, false);
process.env.DATABASE_URL = runningCluster(`${instance.data}/postgres`);
process.env.LANTERNPOST_DATA = instance.data;
database();
// A second web server and gateway, beside those of the instance.
const second = new Family();
const cli = resolve(import.meta.dirname, '../../bin/lanternpost.mjs');
// Their logs would only name the processes that are killed here.
const quiet = { LANTERNPOST_LOG: 'silent' };
second.start('web', [cli, 'web', '--port', '4443'], quiet);
second.start('gateway', [cli, 'gateway', '--port', '4444'], quiet);
const webs = [instance.url, 'http://127.0.0.1:4443'];
const gateways = ['http://127.0.0.1:4441', 'http://127.0.0.1:4444'];
while (!(await fetch(`${webs[1]}/sign-in`).catch(() => null))?.ok) await pause(500);

const networks = [await newLoaded('north', [...webs, ...gateways]), await newLoaded('south', [...gateways, ...webs])];
for (const { players } of networks) for (const player of players) void player.run();

await settled('before');

const until = Date.now() + minutes * 60_000;
const counts = { done: 0, failed: 0 };
const kills: Record<string, number> = {};

/** Waits until nothing is under way and all screens are lit. Returns what still is. */
async function settled(when: string): Promise<string[]> {
  const late = Date.now() + SETTLED_WITHIN_MS;
  let open: string[] = [];
  do {
    await pause(1000);
    open = (await Promise.all(networks.map((one) => unsettled(one).catch((error: unknown) => [String(error)])))).flat();
  } while (open.length > 0 && Date.now() < late);
  console.log(`${when}: ${open.length === 0 ? 'all screens are lit' : open.join(', ')}`);
  return open;
}

async function hand(network: Loaded): Promise<void> {
  let cookie = '';
  while (Date.now() < until) {
    try {
      cookie ||= await signIn(network);
      await anyOf(OFTEN)(network, anyOf(webs), cookie);
      counts.done++;
    } catch {
      counts.failed++;
      await pause(300);
    }
    await pause(Math.random() * 1000);
  }
}

async function signIn({ person }: Loaded): Promise<string> {
  const response = await fetch(`${anyOf(webs)}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(person),
  });
  if (!response.ok) throw new Error(`${response.status}`);
  return response.headers.getSetCookie()[0]?.split(';')[0] ?? '';
}

async function killer(): Promise<void> {
  const parent = () => anyOf([instance.pid, process.pid]);
  const web = () => childOf(parent(), 'lanternpost.mjs web');
  const victims: Record<string, () => Promise<number> | number> = {
    web,
    think: () => childOf(web(), anyOf(['lanternpost.mjs think usual', 'lanternpost.mjs think urgent'])),
    gateway: () => childOf(parent(), 'lanternpost.mjs gateway'),
    worker: () => childOf(instance.pid, 'lanternpost.mjs worker'),
    // One of its backends: PostgreSQL then ends all, and recovers.
    postgres: async () => (await rows<{ pid: number }>('SELECT pg_backend_pid() AS pid').catch(() => []))[0]?.pid ?? 0,
  };
  while (Date.now() < until) {
    await pause(3000 + Math.random() * 7000);
    const name = anyOf(Object.keys(victims));
    const pid = await victims[name]?.();
    if (!pid) continue;
    try {
      process.kill(pid, 'SIGKILL');
      kills[name] = (kills[name] ?? 0) + 1;
    } catch {
      // It has ended by itself.
    }
  }
}

await Promise.all([killer(), ...networks.flatMap((network) => Array.from({ length: HANDS }, () => hand(network)))]);
console.log(JSON.stringify({ minutes, ...counts, kills }));

const open = await settled('after');
const wrong = [...open, ...(await Promise.all(networks.map((one) => audited(one)))).flat()];
for (const { mark, confirmed } of networks)
  console.log(
    `${mark}: ${confirmed.screens.size} screens, ${confirmed.uploads.size} files and ${confirmed.editions.size} editions were confirmed`,
  );
console.log(wrong.length === 0 ? 'All that was confirmed is there.' : wrong.slice(0, 20).join('\n'));
for (const { players } of networks) for (const player of players) player.stop();
await closeDatabase();
await second.stop();
await instance.stop();
await removeData(instance.data);
process.exit(wrong.length === 0 ? 0 : 1);
