import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { quantile } from 'd3-array';
import sharp from 'sharp';
import { startLanternpost } from '../e2e/support/instance';
import { closeDatabase } from '@/database';
import { SimulatedPlayer } from '@/fleet';
import { addFile } from '@/services/library';
import { endPutOn, publishEdition, putOn } from '@/services/editions';
import { addPerson } from '@/services/people';
import { createNetwork, edit, lastChange } from '@/services/plan';
import { pairScreen } from '@/services/screens';
import { median, print, timed } from './figure';
import { BENCH_PERSON, bind } from './instance';

const PLAYERS = 200;
const ROUNDS = 10;

/** From putting something on to each of 200 connected players having taken it up: their median, and 99 in 100 of them. */
export async function putOnBench(): Promise<void> {
  const instance = await startLanternpost('bench-put-on', 4430, false);
  const players: SimulatedPlayer[] = [];
  try {
    bind(instance);
    const networkId = await createNetwork({ name: 'Put on', slug: 'put-on' });
    const actor = await addPerson(networkId, BENCH_PERSON);
    const folder = await mkdtemp(join(tmpdir(), 'lanternpost-bench-'));
    const path = join(folder, 'drill.png');
    await sharp({ create: { width: 640, height: 360, channels: 3, background: '#204060' } })
      .png()
      .toFile(path);
    await addFile(actor, path, { id: 'drill', name: 'Drill', added: new Date().toISOString() });
    await rm(folder, { recursive: true });
    const ids = Array.from({ length: PLAYERS }, (_, i) => `screen-${i}`);
    await edit(actor, [
      { kind: 'site', id: 'quay', add: { name: 'Quay', timeZone: 'UTC', tags: [] } },
      ...ids.map((id) => ({
        ...{ kind: 'screen' as const, id },
        add: { name: id, site: 'quay', width: 1920, height: 1080, tags: [], backdrop: { media: 'drill' } },
      })),
    ]);
    await publishEdition(actor, await lastChange(networkId));

    /** What each player runs: the ids of its program's bookings. */
    const runs = new Map<string, readonly string[]>();
    let heard: (screen: string) => void = () => undefined;
    for (const id of ids) {
      const player = new SimulatedPlayer({
        server: instance.url,
        onCode: (code) => void pairScreen(actor, id, code, '127.0.0.1').catch(() => undefined),
        onProgram: (program) => {
          runs.set(id, program?.bookings.map((one) => one.id) ?? []);
          heard(id);
        },
      });
      players.push(player);
      void player.run();
    }
    while (runs.size < PLAYERS) await wait(200);

    /** How long each player takes until its program has a booking, or has it no more, in seconds. */
    const taken: number[] = [];
    const alone: number[] = [];
    for (let round = 0; round < ROUNDS; round++) {
      const begun = performance.now();
      const missing = new Set(ids);
      const all = new Promise<void>((done) => {
        heard = (screen) => {
          if (!missing.delete(screen)) return;
          taken.push((performance.now() - begun) / 1000);
          if (missing.size === 0) done();
        };
      });
      const what = { content: { media: 'drill' }, where: 'all', until: Date.now() + 3_600_000, zone: 'UTC' };
      let id = '';
      alone.push(await timed(async () => void ({ id } = await putOn(actor, what))));
      await all;
      heard = () => undefined;
      await endPutOn(actor, id, Date.now() + 1000);
      await wait(2000);
    }
    const half = median(taken);
    const nearlyAll = quantile(taken, 0.99) ?? NaN;
    print({
      bench: 'publish/put-on-200-players',
      value: half,
      unit: 's',
      reference: {
        what: `writing the edition alone; 99 in 100 of ${taken.length} have it within ${nearlyAll.toFixed(2)} s`,
        value: median(alone),
      },
      goal: 'value < 2, 99 in 100 under 4',
      met: half < 2 && nearlyAll < 4,
    });
  } finally {
    players.forEach((player) => player.stop());
    await closeDatabase();
    await instance.stop();
  }
}
