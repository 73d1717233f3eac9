import { existsSync } from 'node:fs';
import { mkdir, rm } from 'node:fs/promises';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { freePort, startCluster } from '../scripts/cluster.mjs';
import { NetworkRow, closeDatabase, closeQueue, rows } from '@/database';
import { DEMO_NETWORK, DEMO_PEOPLE, openDemoTray, seedDemo } from '@/demo';
import { Family } from './family';
import { checkPairing, closeFolders } from '@/services/library';
import { openSampleSession } from '@/services/people';
import { prepareDatabase } from './migrate';
import { holdFolder } from './only-one';
import { options, type Command } from './options';
import { RESTORING } from './restore';

const usage = `start [--demo] [--reset]
       --demo    fill an empty database with the sample network, and run its simulated players
       --reset   with --demo: remove the sample network first
       Environment: PORT (4170), GATEWAY_PORT (4180), HOST (127.0.0.1), DATABASE_URL, LANTERNPOST_DATA (data), LANTERNPOST_DB_PORT (54610)`;

const root = resolve(dirname(fileURLToPath(import.meta.url)), '..');
const began = Date.now();

function say(step: string): void {
  console.log(`${`${((Date.now() - began) / 1000).toFixed(1)} s`.padStart(8)}  ${step}`);
}

export const command: Command = {
  usage,
  async run(args) {
    const { demo = false, reset = false } = options(
      args,
      { demo: { type: 'boolean' }, reset: { type: 'boolean' } },
      usage,
    );
    if (!existsSync(join(root, '.next/BUILD_ID')))
      throw new Error('The production build is missing. Run `npm run build`, or start with `npm run demo`.');
    const data = resolve(process.env.LANTERNPOST_DATA ?? join(root, 'data'));
    process.env.LANTERNPOST_DATA = data;
    const host = process.env.HOST ?? '127.0.0.1';

    await mkdir(data, { recursive: true });
    await holdFolder(data);
    if (existsSync(join(data, RESTORING)))
      throw new Error(`A restore into ${data} broke off. Remove this folder, then restore the backup again.`);

    const ours = !process.env.DATABASE_URL;
    let cluster = null as Awaited<ReturnType<typeof startCluster>> | null;
    const openCluster = async (port = Number(process.env.LANTERNPOST_DB_PORT ?? 54_610)) => {
      cluster = await startCluster(join(data, 'postgres'), port);
      const moved = process.env.DATABASE_URL && process.env.DATABASE_URL !== cluster.url;
      process.env.DATABASE_URL = cluster.url;
      if (moved) family.restart();
    };
    const family = new Family();
    let mending = false;
    const watch = setInterval(() => {
      if (!cluster || mending || alive(cluster.pid)) return;
      mending = true;
      console.error('PostgreSQL ended: it starts again');
      void openCluster(cluster.port)
        .catch((error: unknown) => console.error(String(error)))
        .finally(() => (mending = false));
    }, 1000);
    let ending: Promise<void> | null = null;
    const end = () =>
      (ending ??= (async () => {
        clearInterval(watch);
        await family.stop();
        cluster?.stop();
      })());
    // Impatient people and service managers ask twice: the first ending continues.
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const)
      process.on(signal, () => void end().finally(() => process.exit(0)));

    const light = async () => {
      if (ours) {
        say('PostgreSQL');
        await openCluster();
      }
      say('Tables and queues');
      if (reset) await removeDemo(data);
      await prepareDatabase();
      await closeFolders();
      const pairing = await checkPairing();
      if (pairing.kind === 'apart') console.error(`\n${pairing.why}\n`);
      if (demo && (await NetworkRow.count()) === 0) {
        say('Sample network');
        await seedDemo(say);
      }
      process.env.LANTERNPOST_DEMO = demo ? '1' : '0';
      const session = demo ? await openSampleSession(DEMO_NETWORK) : null;
      const enrolment = demo ? await openDemoTray(DEMO_NETWORK) : null;
      await closeQueue();
      await closeDatabase();

      const port = await freePort(Number(process.env.PORT ?? 4170));
      const gatewayPort = await freePort(Number(process.env.GATEWAY_PORT ?? 4180));
      const cli = join(root, 'bin/lanternpost.mjs');
      family.start('web', [cli, 'web', '--port', String(port), '--host', host]);
      family.start('gateway', [cli, 'gateway', '--port', String(gatewayPort), '--host', host]);
      family.start('worker', [cli, 'worker']);
      const url = `http://${host === '0.0.0.0' ? '127.0.0.1' : host}:${port}`;
      say('Web, gateway and worker');
      await answers(`${url}/sign-in`, family);
      if (session) {
        const players = ['fleet', '--network', '--server', url, '--state', join(data, 'fleet')];
        family.start('fleet', [cli, ...players], { LANTERNPOST_SESSION: session });
        if (enrolment) {
          const box = ['fleet', '--players', '1', '--enrol', enrolment, '--server', url];
          family.start('box', [cli, ...box, '--state', join(data, 'fleet', 'box')]);
        }
        say('Simulated players');
      }
      console.log(`\nLanternpost is lit: ${url}`);
      if (demo)
        for (const { name, email, password } of DEMO_PEOPLE) console.log(`  ${name}: ${email}, password ${password}`);
      console.log(`  A player: ${url}/player   ·   gateway: port ${gatewayPort}   ·   Ctrl-C stops everything\n`);
    };
    await light().catch(async (error: unknown) => {
      await end();
      throw error;
    });
    return undefined;
  },
};

/** Removes the sample network and its files. Refuses where the database holds anybody else's. */
async function removeDemo(data: string): Promise<void> {
  const [known] = await rows<{ found: string | null }>(`SELECT to_regclass('networks')::text AS found`);
  if (known?.found) {
    const others = await rows<{ slug: string }>('SELECT slug FROM networks WHERE slug <> $1', [DEMO_NETWORK]);
    if (others[0])
      throw new Error(`This database holds the network “${others[0].slug}”: only the sample network can be reset.`);
  }
  await rows('DROP SCHEMA IF EXISTS pgboss CASCADE');
  await rows('DROP SCHEMA public CASCADE');
  await rows('CREATE SCHEMA public');
  for (const folder of ['media', 'incoming', 'trash', 'fleet'])
    await rm(join(data, folder), { recursive: true, force: true });
}

function alive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}

async function answers(url: string, family: Family): Promise<void> {
  for (let waited = 0; waited < 120_000; waited += 150) {
    if (
      await fetch(url, { redirect: 'manual' }).then(
        (response) => response.status < 500,
        () => false,
      )
    )
      return;
    await new Promise((done) => setTimeout(done, 150));
  }
  await family.stop();
  throw new Error(`The web server does not answer at ${url}: see its messages above.`);
}
