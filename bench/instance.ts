import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Browser, type Page } from '@playwright/test';
import sharp from 'sharp';
import { startLanternpost, type Instance } from '../e2e/support/instance';
import { runningCluster } from '../scripts/cluster.mjs';
import config from '../playwright.config';
import { closeDatabase, database } from '@/database';
import { publishEdition } from '@/services/editions';
import { addFile } from '@/services/library';
import { addPerson, type Actor } from '@/services/people';
import { createNetwork, draftPlan, importPlan, lastChange } from '@/services/plan';
import { generatedNetwork } from './generated-network';

/** Binds this process to an instance's database and files: its address is known only once it runs. */
export function bind({ data }: Instance): void {
  Object.assign(process.env, { DATABASE_URL: runningCluster(join(data, 'postgres')), LANTERNPOST_DATA: data });
  database();
}

/** Opens the connection to the instance's database again. */
export const bindAgain = (): void => void database();

export const launch = (): Promise<Browser> => chromium.launch(config.use?.launchOptions);

/** A page of a person who is logged in, on Now. */
export async function signedIn(
  browser: Browser,
  url: string,
  { email, password }: { readonly email: string; readonly password: string },
): Promise<Page> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${url}/sign-in`);
  await page.getByLabel('E-mail').fill(email);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Log in' }).click();
  await page.getByTestId('docket').waitFor({ timeout: 60_000 });
  return page;
}

const PICTURES = 24;
export const BENCH_PERSON = { name: 'Bench', email: 'bench@example.org', password: 'a long password' };

/** Runs `work` on an instance of its own with a made-up network of `screens` screens, 500 bookings and real pictures, published. */
export async function withLargeNetwork(
  screens: number,
  work: (page: Page, browser: Browser, url: string, actor: Actor) => Promise<void>,
): Promise<void> {
  const instance = await startLanternpost('bench-large', 4420, false);
  let browser: Browser | null = null;
  try {
    bind(instance);
    const networkId = await createNetwork({ name: 'Generated', slug: 'generated' });
    const actor = await addPerson(networkId, BENCH_PERSON);
    await fill(actor, screens);
    await closeDatabase();
    browser = await launch();
    await work(await signedIn(browser, instance.url, BENCH_PERSON), browser, instance.url, actor);
  } finally {
    await browser?.close();
    await closeDatabase();
    await instance.stop();
  }
}

async function fill(actor: Actor, screens: number): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), 'lanternpost-bench-'));
  for (let i = 0; i < PICTURES; i++) {
    const path = join(folder, `${i}.png`);
    const background = { r: (i * 37) % 256, g: (i * 91) % 256, b: (i * 53) % 256 };
    const [width, height] = i % 3 === 0 ? [1080, 1920] : [1920, 1080];
    await sharp({ create: { width, height, channels: 3, background } })
      .png()
      .toFile(path);
    await addFile(actor, path, { id: `picture-${i}`, name: `Picture ${i}`, added: '2026-01-01T00:00:00Z' });
  }
  await rm(folder, { recursive: true, force: true });
  const { plan } = await draftPlan(actor);
  const generated = generatedNetwork(screens);
  const playlists = generated.playlists.map((list, i) => ({
    ...list,
    items: list.items.map((item, n) => ({ ...item, media: `picture-${(i * 7 + n) % PICTURES}` })),
  }));
  await importPlan(actor, {
    ...generated,
    network: { ...generated.network, name: 'Generated' },
    media: plan.media,
    playlists,
  });
  await publishEdition(actor, await lastChange(actor.networkId));
}
