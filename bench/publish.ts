import { randomBytes } from 'node:crypto';
import { execFileSync } from 'node:child_process';
import { mkdtemp } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Page } from '@playwright/test';
import sharp from 'sharp';
import { startLanternpost, type Instance } from '../e2e/support/instance';
import { NetworkRow, PersonRow, closeDatabase } from '@/database';
import { PERMISSIONS } from '@/core/roles';
import { DEMO_PEOPLE } from '@/demo';
import { addFile } from '@/services/library';
import type { Actor } from '@/services/people';
import { draftPlan, edit } from '@/services/plan';
import { pairScreen } from '@/services/screens';
import { median, print, timed } from './figure';
import { bind, launch, signedIn } from './instance';
import { largePublicationBench } from './large-publication';
import { onTimeBench } from './on-time';

const ROUNDS = 10;

/** The first lamp's figures, on the production build with the sample network. */
export async function publishBench(): Promise<void> {
  let instance = await startLanternpost('bench', 4410, true);
  await instance.stop();
  const bare = median(
    await Promise.all(
      [1, 2, 3].map(async () =>
        timed(async () => void execFileSync(process.execPath, ['bin/lanternpost.mjs', '--help'])),
      ),
    ),
  );
  const start = await timed(async () => {
    instance = await startLanternpost('bench', 4410, true, false);
    await (await fetch(`${instance.url}/sign-in`)).text();
  });
  print({
    bench: 'demo/second-start',
    value: start,
    unit: 's',
    reference: { what: 'the command line printing its help', value: bare },
    goal: 'value < 15',
    met: start < 15,
  });

  const browser = await launch();
  try {
    const page = await signedIn(browser, instance.url, DEMO_PEOPLE[0]);
    await now(page, instance.url);
    await publishing(browser, page, instance);
  } finally {
    await browser.close();
    await instance.stop();
  }
}

/** Server response and render of Now, to all 36 tiles with their pictures decoded; beside a page with nothing on it. */
async function now(page: Page, url: string): Promise<void> {
  const load = async (path: string, ready: () => boolean) => {
    await page.goto(url + path, { waitUntil: 'commit' });
    await page.waitForFunction(ready);
  };
  const tiles = () => {
    const pictures = [...document.querySelectorAll<HTMLImageElement>('[data-screen] img')];
    return document.querySelectorAll('[data-screen]').length === 36 && pictures.every((picture) => picture.complete);
  };
  const values: number[] = [];
  const references: number[] = [];
  for (let i = 0; i < ROUNDS; i++) {
    references.push(await timed(() => load('/player', () => document.readyState === 'complete')));
    values.push(await timed(() => load('/', tiles)));
  }
  const value = median(values);
  print({
    bench: 'now/36-tiles',
    value,
    unit: 's',
    reference: { what: 'the player page, which is nearly empty', value: median(references) },
    goal: 'value < 1',
    met: value < 1,
  });
}

/** From the click on Publish to the first frame of a new playlist with a 5 MB picture, on a connected player. */
async function publishing(browser: Browser, page: Page, instance: Instance): Promise<void> {
  const { url } = instance;
  bind(instance);
  const network = await NetworkRow.findOne();
  const person = await PersonRow.findOne({ where: { email: DEMO_PEOPLE[0].email } });
  const actor: Actor = { networkId: network?.id ?? '', personId: person?.id ?? '', name: '', may: PERMISSIONS };
  const folder = await mkdtemp(join(tmpdir(), 'lanternpost-bench-'));
  const run = randomBytes(3).toString('hex');
  const screen = `bench-${run}`;
  for (let i = 0; i < ROUNDS; i++) {
    const path = join(folder, `${i}.png`);
    await sharp(randomBytes(1310 * 1310 * 3), { raw: { width: 1310, height: 1310, channels: 3 } })
      .png({ compressionLevel: 1 })
      .toFile(path);
    await addFile(actor, path, { id: `noise-${run}-${i}`, name: `Noise ${i}`, added: new Date().toISOString() });
  }
  await edit(actor, [
    { kind: 'screen', id: screen, add: { name: screen, site: 'ternholm', width: 1280, height: 800, tags: [] } },
  ]);
  const hardware = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const player = await hardware.newPage();
  await player.goto(`${url}/player`);
  await player.waitForFunction(() => /[A-Z]{4}-[A-Z]{4}/.test(document.getElementById('code')?.textContent ?? ''));
  await pairScreen(actor, screen, await player.locator('#code').innerText(), '127.0.0.1');
  await player.waitForFunction(() => document.body.dataset.pairing === '');

  const files = new Map((await draftPlan(actor)).plan.media.map((file) => [file.id, file.sha256]));
  const values: number[] = [];
  const references: number[] = [];
  for (let i = 0; i < ROUNDS; i++) {
    const media = `noise-${run}-${i}`;
    await edit(actor, [
      { kind: 'playlist', id: `list-${run}-${i}`, add: { name: `List ${run} ${i}`, items: [{ media }] } },
      {
        kind: 'screen',
        id: screen,
        set: {
          name: screen,
          site: 'ternholm',
          width: 1280,
          height: 800,
          tags: [],
          backdrop: { playlist: `list-${run}-${i}` },
        },
      },
    ]);
    await page.goto(`${url}/publish`);
    const button = page.getByRole('button', { name: /^Publish edition/ });
    await button.waitFor();
    values.push(
      await timed(async () => {
        const seen = player.waitForFunction(
          (wanted) => document.getElementById('stage')?.dataset.media === wanted,
          media,
        );
        await button.click();
        await seen;
      }),
    );
    references.push(await fetchAlone(page, files.get(media) ?? ''));
  }
  const value = median(values);
  print({
    bench: 'publish/first-frame-5mb',
    value,
    unit: 's',
    reference: { what: 'fetching and decoding the same picture in the browser, alone', value: median(references) },
    goal: 'value < 3',
    met: value < 3,
  });
  await hardware.close();
  await onTimeBench(browser, actor, instance);
  await largePublicationBench(actor);
  await closeDatabase();
}

async function fetchAlone(page: Page, sha256: string): Promise<number> {
  return page.evaluate(async (hash) => {
    const begun = performance.now();
    const blob = await (await fetch(`/api/files/${hash}`, { cache: 'reload' })).blob();
    await createImageBitmap(blob);
    return (performance.now() - begun) / 1000;
  }, sha256);
}
