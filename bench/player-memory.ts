import { execFileSync } from 'node:child_process';
import { readFileSync, readdirSync } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Page } from '@playwright/test';
import { startLanternpost } from '../e2e/support/instance';
import { closeDatabase } from '@/database';
import { publishEdition } from '@/services/editions';
import { addFile } from '@/services/library';
import { addPerson, type Actor } from '@/services/people';
import { createNetwork, edit, lastChange } from '@/services/plan';
import { pairScreen } from '@/services/screens';
import { BENCH_PERSON, bind, launch } from './instance';
import { print } from './figure';

const MINUTE_MS = 60_000;
const SECONDS_OF_FILM = 18;
/** From the third minute on, a renderer has what it needs; so much more it may take in the half hour after. */
const SETTLED_AFTER = 3;
const MINUTES = 30;
const LAST_MINUTES = 5;
const MOST_GROWTH_MB = 50;

/** A player that shows two videos of 18 s in turn for half an hour: what its renderer grows by after the third minute. Prints each minute on standard error. */
export async function playerMemoryBench(): Promise<void> {
  const instance = await startLanternpost('bench-player', 4440, false);
  let browser: Browser | null = null;
  try {
    bind(instance);
    const actor = await addPerson(await createNetwork({ name: 'Films', slug: 'films' }), BENCH_PERSON);
    await plan(actor);
    browser = await launch();
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 720 } })).newPage();
    await page.goto(`${instance.url}/player`);
    const code = page.locator('#code');
    await page.waitForFunction(() => /-/.test(document.querySelector('#code')?.textContent ?? ''));
    await pairScreen(actor, 'hall', await code.innerText(), '127.0.0.1');
    await closeDatabase();
    await page.waitForFunction(() => document.getElementById('stage')?.dataset.media !== undefined, null, {
      timeout: 2 * MINUTE_MS,
    });
    await measure(page);
  } finally {
    await browser?.close();
    await closeDatabase();
    await instance.stop();
  }
}

async function plan(actor: Actor): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), 'lanternpost-bench-'));
  for (const [id, source] of [
    ['one', 'testsrc2'],
    ['other', 'mandelbrot'],
  ] as const) {
    const path = join(folder, `${id}.mp4`);
    const drawn = `${source}=s=1280x720:r=25`;
    execFileSync('ffmpeg', [
      ...['-v', 'error', '-f', 'lavfi', '-i', drawn, '-t', String(SECONDS_OF_FILM)],
      ...['-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p', '-movflags', '+faststart', '-y', path],
    ]);
    await addFile(actor, path, { id, name: id, added: '2026-01-01T00:00:00Z' });
  }
  await rm(folder, { recursive: true, force: true });
  await edit(actor, [{ kind: 'site', id: 'quay', add: { name: 'Quay', timeZone: 'UTC' } }]);
  await edit(actor, [{ kind: 'screen', id: 'hall', add: { name: 'Hall', site: 'quay', width: 1280, height: 720 } }]);
  await edit(actor, [
    { kind: 'playlist', id: 'films', add: { name: 'Films', items: [{ media: 'one' }, { media: 'other' }] } },
  ]);
  await edit(actor, [{ kind: 'network', id: 'network', set: { backdrop: { playlist: 'films' } } }]);
  await publishEdition(actor, await lastChange(actor.networkId));
}

/** What a process holds that is its own, in MB. */
function memoryOf(pid: string): number {
  const rollup = readFileSync(`/proc/${pid}/smaps_rollup`, 'utf8');
  const own = [...rollup.matchAll(/^Private_\w+:\s+(\d+) kB$/gm)].reduce((sum, [, kb]) => sum + Number(kb), 0);
  return own / 1024;
}

/** The renderer that holds most: that of the player's page. */
function renderer(): string {
  const pids = readdirSync('/proc').filter((name) => /^\d+$/.test(name));
  const renderers = pids.filter((pid) => {
    try {
      return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('--type=renderer');
    } catch {
      return false;
    }
  });
  return renderers.reduce((most, pid) => (memoryOf(pid) > memoryOf(most) ? pid : most));
}

async function measure(page: Page): Promise<void> {
  const pid = renderer();
  const seen = new Set<string>();
  const values: number[] = [];
  for (let minute = 1; minute <= MINUTES; minute++) {
    // A look each minute; what is measured is the mean of some within it, since a film comes and goes.
    const looks: number[] = [];
    for (let i = 0; i < 12; i++) {
      await page.waitForTimeout(MINUTE_MS / 12);
      looks.push(memoryOf(pid));
      seen.add(await page.evaluate(() => document.getElementById('stage')?.dataset.media ?? ''));
    }
    values.push(looks.reduce((sum, one) => sum + one, 0) / looks.length);
  }
  if (seen.size < 2) throw new Error('the player did not show both films');
  const settled = values[SETTLED_AFTER - 1] ?? NaN;
  // A renderer holds more and less from one minute to the next, as it clears up: what it comes to is the mean of the last ones.
  const last = values.slice(-LAST_MINUTES);
  const growth = last.reduce((sum, one) => sum + one, 0) / last.length - settled;
  console.error(values.map((one) => Math.round(one)).join(' '));
  print({
    bench: 'player/two-films-30-minutes',
    value: growth,
    unit: 'MB',
    reference: { what: 'what the renderer holds in its third minute', value: settled },
    goal: `value < ${MOST_GROWTH_MB}: the mean of the last ${LAST_MINUTES} minutes, less the third's`,
    met: growth < MOST_GROWTH_MB,
  });
}
