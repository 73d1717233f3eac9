import { execFileSync } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser, Page } from '@playwright/test';
import { quantile } from 'd3-array';
import sharp from 'sharp';
import { startLanternpost } from '../e2e/support/instance';
import { closeDatabase } from '@/database';
import { publishEdition } from '@/services/editions';
import { addFile } from '@/services/library';
import { addPerson, type Actor } from '@/services/people';
import { createNetwork, edit, lastChange } from '@/services/plan';
import { pairScreen } from '@/services/screens';
import { BENCH_PERSON, bind, launch } from './instance';
import { print } from './figure';

const SETTLE_MS = 40_000;
const MEASURED_MS = 60_000;
const DISPLAYS = 4;
const PICTURES = ['red', 'green', 'blue'];
const FILM_SECONDS = 10;
const FRAME_MS = 1000 / 60;

/** What a display noted: when another picture or film was put on its glass, and where its film stood. In ms, of one clock for all. */
interface Noted {
  readonly switches: readonly { readonly media: string; readonly at: number }[];
  readonly film: readonly { readonly at: number; readonly mediaMs: number }[];
}

/**
 * A wall of two by two browsers that shows pictures of two seconds and a film: how far apart any two of them switch, and are in the film. The
 * reference is how far apart four plain timers to the same instant end in the same pages.
 */
export async function wallBench(): Promise<void> {
  const instance = await startLanternpost('bench-wall', 4460, false);
  let browser: Browser | null = null;
  try {
    bind(instance);
    const actor = await addPerson(await createNetwork({ name: 'Wall', slug: 'wall' }), BENCH_PERSON);
    await plan(actor);
    browser = await launch();
    const pages: Page[] = [];
    for (let i = 0; i < DISPLAYS; i++) pages.push(await display(browser, actor, instance.url));
    await closeDatabase();
    await pages[0]?.waitForTimeout(SETTLE_MS);
    const from = Date.now();
    const timers = await plainTimers(pages);
    await pages[0]?.waitForTimeout(MEASURED_MS);
    const noted = await Promise.all(
      pages.map(async (page) => {
        const { switches, film } = await page.evaluate(() => (window as unknown as { noted: Noted }).noted);
        return { switches: switches.filter(({ at }) => at >= from), film: film.filter(({ at }) => at >= from) };
      }),
    );
    report('wall/switch-apart-p99-4-displays', switchesApart(noted), timers);
    report('wall/film-apart-p99-4-displays', filmsApart(noted), timers);
  } finally {
    await browser?.close();
    await closeDatabase();
    await instance.stop();
  }
}

function report(bench: string, apart: readonly number[], timers: readonly number[]): void {
  if (apart.length === 0) throw new Error('nothing was seen on all displays');
  const value = quantile(apart, 0.99) ?? NaN;
  const reference = {
    what: 'four plain timers to the same instants in the same pages',
    value: quantile(timers, 0.99) ?? NaN,
  };
  print({ bench, value, unit: 'ms', reference, goal: '< 16.7 ms, a frame at 60 Hz', met: value < FRAME_MS });
}

async function plan(actor: Actor): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), 'lanternpost-bench-'));
  for (const id of PICTURES) {
    const path = join(folder, `${id}.png`);
    await sharp({ create: { width: 1280, height: 720, channels: 3, background: id } })
      .png()
      .toFile(path);
    await addFile(actor, path, { id, name: id, added: '2026-01-01T00:00:00Z' });
  }
  const path = join(folder, 'film.mp4');
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-f', 'lavfi', '-i', 'testsrc2=s=640x360:r=25', '-t', String(FILM_SECONDS)],
    ...['-c:v', 'libx264', '-preset', 'fast', '-pix_fmt', 'yuv420p', path],
  ]);
  await addFile(actor, path, { id: 'film', name: 'film', added: '2026-01-01T00:00:00Z' });
  await rm(folder, { recursive: true, force: true });
  const items = [...PICTURES.map((media) => ({ media, durationMs: 2000 })), { media: 'film' }];
  const wall = { rows: 2, columns: 2, widthMm: 1210, heightMm: 681, betweenMm: 4 };
  await edit(actor, [
    { kind: 'site', id: 'quay', add: { name: 'Quay', timeZone: 'Europe/Oslo' } },
    { kind: 'playlist', id: 'loop', add: { name: 'Loop', items } },
    {
      ...{ kind: 'screen', id: 'hall' },
      add: { name: 'Hall', site: 'quay', width: 1280, height: 720, wall, backdrop: { playlist: 'loop' } },
    },
  ]);
  await publishEdition(actor, await lastChange(actor.networkId));
}

/** A browser that is a display of the wall, and notes what it shows. */
async function display(browser: Browser, actor: Actor, url: string): Promise<Page> {
  const page = await (await browser.newContext({ viewport: { width: 320, height: 180 } })).newPage();
  // The bench's compiler keeps functions' names by this, and the page doesn't have it.
  await page.addInitScript({ content: 'globalThis.__name = (one) => one;' });
  await page.addInitScript(() => {
    const noted = { switches: [] as { media: string; at: number }[], film: [] as { at: number; mediaMs: number }[] };
    Object.assign(window, { noted });
    const absolute = (time: number) => performance.timeOrigin + time;
    addEventListener('DOMContentLoaded', () => {
      const stage = document.getElementById('stage') as HTMLElement;
      new MutationObserver(() => {
        const media = stage.dataset.media ?? '';
        noted.switches.push({ media, at: absolute(performance.now()) });
        const film = stage.querySelector<HTMLVideoElement>('video:not([hidden])');
        if (media !== 'film' || !film) return;
        const look: VideoFrameRequestCallback = () => {
          noted.film.push({ at: absolute(performance.now()), mediaMs: film.currentTime * 1000 });
          if (stage.dataset.media === 'film') film.requestVideoFrameCallback(look);
        };
        film.requestVideoFrameCallback(look);
      }).observe(stage, { attributes: true, attributeFilter: ['data-media'] });
    });
  });
  await page.goto(`${url}/player`);
  await page.waitForFunction(() => /-/.test(document.querySelector('#code')?.textContent ?? ''));
  await pairScreen(actor, 'hall', await page.locator('#code').innerText(), '127.0.0.1');
  await page.waitForFunction(() => document.getElementById('stage')?.dataset.media !== undefined, null, {
    timeout: 120_000,
  });
  return page;
}

/** How far apart timers end that all pages set to the same instants. */
async function plainTimers(pages: readonly Page[]): Promise<number[]> {
  const apart: number[] = [];
  for (let i = 0; i < 20; i++) {
    const at = Date.now() + 400;
    const ends = await Promise.all(
      pages.map((page) =>
        page.evaluate(
          (instant) =>
            new Promise<number>((done) =>
              setTimeout(() => done(performance.timeOrigin + performance.now()), instant - Date.now()),
            ),
          at,
        ),
      ),
    );
    apart.push(Math.max(...ends) - Math.min(...ends));
  }
  return apart;
}

/** For each switch that all displays made: from the first of them to the last. */
function switchesApart(noted: readonly Noted[]): number[] {
  const [first, ...others] = noted;
  return (first?.switches ?? []).flatMap(({ media, at }) => {
    const all = others.map(({ switches }) =>
      switches.find((one) => one.media === media && Math.abs(one.at - at) < 1000),
    );
    const times = [at, ...all.flatMap((one) => one?.at ?? [])];
    return times.length === noted.length ? [Math.max(...times) - Math.min(...times)] : [];
  });
}

/** For each frame of the first display: how far apart the displays stand in the film at that moment. Its first second is left out: it just begins. */
function filmsApart(noted: readonly Noted[]): number[] {
  const [first, ...others] = noted;
  return (first?.film ?? []).flatMap(({ at, mediaMs }) => {
    if (mediaMs < 1000 || mediaMs > FILM_SECONDS * 1000 - 500) return [];
    const all = others.flatMap(({ film }) => {
      const near = film.filter((one) => Math.abs(one.at - at) < 100);
      const [one] = near.sort((a, b) => Math.abs(a.at - at) - Math.abs(b.at - at));
      return one ? [one.mediaMs + at - one.at] : [];
    });
    const places = [mediaMs, ...all];
    return places.length === noted.length ? [Math.max(...places) - Math.min(...places)] : [];
  });
}
