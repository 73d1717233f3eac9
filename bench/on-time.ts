import { randomBytes } from 'node:crypto';
import { quantile } from 'd3-array';
import pLimit from 'p-limit';
import type { Browser, Page } from '@playwright/test';
import type { Instance } from '../e2e/support/instance';
import { ObjectRow, PlayerRow, rows } from '@/database';
import { plainGlass } from '@/fleet/simulated-glass';
import type { Hardware } from '@/player/hardware/hardware';
import { FleetStore } from '@/fleet/store';
import { PlayerSession } from '@/player/session/session';
import { ProtocolClient } from '@/protocol/client';
import { endPutOn, planEdition, publishEdition, putOn } from '@/services/editions';
import { tokenHash, type Actor } from '@/services/people';
import { edit, lastChange } from '@/services/plan';
import { pairScreen } from '@/services/screens';
import { print } from './figure';

const CROWD = 200;
const ROUNDS = 5;
const PLANNED = { players: 20, rounds: 5, leadMs: 9000 };

/** A player without a display, and when it took up each of its programs. */
export interface Listener {
  readonly session: PlayerSession;
  readonly client: ProtocolClient;
  readonly takenUp: number[];
  /** When what was fired on its screen changed. */
  readonly firedAt: number[];
}

/** A device that can do nothing but take a picture of its display, which is black. */
const GLASS: Hardware = {
  abilities: () => [],
  state: () => ({}),
  carryOut: () => Promise.resolve(),
  picture: async () => ({ bytes: await plainGlass({ width: 640, height: 360 }, '#000'), isCovered: false }),
};

/** Screens that are alike, each with a player that is paired already: pairing is another figure. */
export async function crowd(
  actor: Actor,
  url: string,
  { site = 'ternholm', media = 'line-flag', size = CROWD }: { site?: string; media?: string; size?: number } = {},
): Promise<Listener[]> {
  const screens = Array.from({ length: size }, (_, i) => `crowd-${i}`);
  await edit(
    actor,
    screens.map((id) => ({
      ...{ kind: 'screen' as const, id },
      add: { name: id, site, width: 640, height: 360, tags: ['crowd'], backdrop: { media } },
    })),
  );
  await publishEdition(actor, await lastChange(actor.networkId));
  const lane = pLimit(20);
  return Promise.all(
    screens.map((id) =>
      lane(async () => {
        const screen = await ObjectRow.findOne({
          where: { networkId: actor.networkId, kind: 'screen', slug: id },
          rejectOnEmpty: true,
        });
        const token = randomBytes(32).toString('base64url');
        await PlayerRow.create({ networkId: actor.networkId, screenId: screen.id, tokenHash: tokenHash(token) });
        const store = new FleetStore(null);
        await store.save({ token });
        const takenUp: number[] = [];
        const firedAt: number[] = [];
        const client = new ProtocolClient(url);
        const session = new PlayerSession(
          client,
          store,
          {
            ...{ code: () => undefined, screen: () => undefined },
            program: () => void takenUp.push(Date.now()),
            firings: () => void firedAt.push(Date.now()),
          },
          { software: 'bench', playing: () => ({ state: 'playing', playing: null }), hardware: GLASS },
        );
        void session.run();
        return { session, client, takenUp, firedAt };
      }),
    ),
  );
}

/** Waits until each has taken up so many programs. */
export async function until(listeners: readonly Listener[], count: number): Promise<void> {
  const end = Date.now() + 180_000;
  while (listeners.some(({ takenUp }) => takenUp.length < count)) {
    if (Date.now() > end) throw new Error(`not all players took up program ${count}`);
    await new Promise((done) => setTimeout(done, 20));
  }
}

/** Until the worker has made what screens need, and players have it: what comes late would be taken for what is measured. */
export async function atRest(listeners: readonly Listener[]): Promise<void> {
  const taken = () => listeners.reduce((sum, { takenUp }) => sum + takenUp.length, 0);
  for (let last = -1, quiet = 0; quiet < 5;) {
    await new Promise((later) => setTimeout(later, 1000));
    const open = await rows(
      `SELECT 1 FROM pgboss.job WHERE state IN ('created', 'retry', 'active') AND name IN ('fit-picture', 'deliver')`,
    );
    quiet = open.length === 0 && taken() === last ? quiet + 1 : 0;
    last = taken();
  }
}

/** Waits until each has taken something up since an instant; when each first did, in milliseconds after it. */
async function takenUpSince(listeners: readonly Listener[], since: number): Promise<number[]> {
  const end = Date.now() + 180_000;
  const firstOf = ({ takenUp }: Listener) => takenUp.find((at) => at >= since);
  while (listeners.some((one) => firstOf(one) === undefined)) {
    if (Date.now() > end) throw new Error('not all players took it up');
    await new Promise((done) => setTimeout(done, 20));
  }
  return listeners.map((one) => (firstOf(one) ?? Infinity) - since);
}

const seconds = (list: readonly number[], share: number) => (quantile(list, share) ?? NaN) / 1000;

/** From putting something on to the last players that took it up; and what is planned, against its instant. */
export async function onTimeBench(browser: Browser, actor: Actor, { url }: Instance): Promise<void> {
  const listeners = await crowd(actor, url);
  await until(listeners, 1);
  await atRest(listeners);
  const putOnce = async (where: string, of: readonly Listener[]) => {
    const now = Date.now();
    const content = { media: 'route-map' };
    const { id } = await putOn(actor, { content, where, until: now + 600_000, zone: 'Europe/Oslo' });
    const late = await takenUpSince(of, now);
    const over = Date.now();
    await endPutOn(actor, id);
    await takenUpSince(of, over);
    return late;
  };
  const all: number[] = [];
  for (let i = 0; i < ROUNDS; i++) all.push(...(await putOnce('crowd', listeners)));
  const [first] = listeners;
  const one: number[] = [];
  for (let i = 0; first && i < ROUNDS; i++) one.push(...(await putOnce('screen:crowd-0', [first])));
  const reference = { what: 'the same on one screen alone', value: seconds(one, 0.5) };
  const [median, p99] = [seconds(all, 0.5), seconds(all, 0.99)];
  print({
    bench: 'put-on/median-200-players',
    value: median,
    unit: 's',
    reference,
    goal: 'value < 2',
    met: median < 2,
  });
  print({ bench: 'put-on/p99-200-players', value: p99, unit: 's', reference, goal: 'value < 4', met: p99 < 4 });
  for (const { session } of listeners.slice(PLANNED.players)) session.stop();
  await planned(browser, actor, url, listeners.slice(0, PLANNED.players));
  for (const { session } of listeners) session.stop();
}

async function browserPlayer(browser: Browser, actor: Actor, url: string, screen: string): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 640, height: 360 } });
  const page = await context.newPage();
  await page.goto(`${url}/player`);
  await page.waitForFunction(() => /[A-Z]{4}-[A-Z]{4}/.test(document.getElementById('code')?.textContent ?? ''));
  await pairScreen(actor, screen, await page.locator('#code').innerText(), '127.0.0.1');
  await page.waitForFunction(() => document.getElementById('stage')?.dataset.media === 'line-flag');
  await page.evaluate(() => {
    const changes: number[] = [];
    Object.assign(window, { changes });
    new MutationObserver(() => changes.push(Date.now())).observe(document.getElementById('stage') as HTMLElement, {
      attributes: true,
      attributeFilter: ['data-media'],
    });
  });
  return page;
}

async function planned(browser: Browser, actor: Actor, url: string, listeners: readonly Listener[]): Promise<void> {
  // Their simulated players are stopped: these screens get browsers.
  const screens = [`crowd-${CROWD - 1}`, `crowd-${CROWD - 2}`];
  const pages: Page[] = [];
  for (const screen of screens) pages.push(await browserPlayer(browser, actor, url, screen));
  const ids = [...Array.from({ length: PLANNED.players }, (_, i) => `crowd-${i}`), ...screens];
  const errors: number[] = [];
  const waits: number[] = [];
  for (let round = 0; round < PLANNED.rounds; round++) {
    const media = round % 2 === 0 ? 'route-map' : 'line-flag';
    await edit(
      actor,
      ids.map((id) => ({ kind: 'screen' as const, id, set: { backdrop: { media } } })),
    );
    const had = listeners.map(({ takenUp }) => takenUp.length);
    const { at } = await planEdition(actor, await lastChange(actor.networkId), Date.now() + PLANNED.leadMs);
    const instant = Date.parse(at);
    const timer = new Promise<number>((done) => setTimeout(() => done(Date.now() - instant), instant - Date.now()));
    await Promise.all(
      pages.map((page) =>
        page.waitForFunction((wanted) => document.getElementById('stage')?.dataset.media === wanted, media),
      ),
    );
    waits.push(Math.abs(await timer));
    while (listeners.some(({ takenUp }, i) => takenUp.length === had[i]))
      await new Promise((done) => setTimeout(done, 20));
    errors.push(...listeners.map(({ takenUp }, i) => Math.abs((takenUp[had[i] ?? 0] ?? Infinity) - instant)));
    for (const page of pages)
      errors.push(
        Math.abs(
          (await page.evaluate(() => (window as unknown as { changes: number[] }).changes.at(-1) ?? 0)) - instant,
        ),
      );
  }
  const p99 = quantile(errors, 0.99) ?? NaN;
  print({
    bench: 'planned/switch-error-p99',
    value: p99,
    unit: 'ms',
    reference: { what: 'a plain timer to the same instant', value: quantile(waits, 0.5) ?? NaN },
    goal: 'value < 150',
    met: p99 < 150,
  });
}
