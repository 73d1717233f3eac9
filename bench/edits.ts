import type { Browser, CDPSession, Page } from '@playwright/test';
import pg from 'pg';
import { patchOf, planFile, readPlan, type Plan } from '@/core/plan';
import { rows } from '@/database';
import type { Actor } from '@/services/people';
import { createNetwork, draftPlan, edit, importPlan, loadPlan } from '@/services/plan';
import { flushHeartbeats, heartbeat } from '@/services/screens';
import { median, print, timed } from './figure';
import { generatedNetwork } from './generated-network';
import { BENCH_PERSON, bindAgain, signedIn, withLargeNetwork } from './instance';

const SCREENS = 5000;
const MEDIA = 2000;
const ROUNDS = 41;

/** An edit on 5 000 screens, 500 bookings and 2 000 media: on the server, to other tabs, and what an idle page costs while all beat. */
export async function editsBench(): Promise<void> {
  await withLargeNetwork(SCREENS, async (page, browser, url, actor) => {
    bindAgain();
    const { plan } = await draftPlan(actor);
    const more = Array.from({ length: MEDIA - plan.media.length }, (_, i) => ({
      kind: 'media' as const,
      add: { name: `More ${i}`, kind: 'image' as const, width: 9, height: 9, bytes: 9, added: '2026-01-01T00:00:00Z' },
    }));
    await edit(actor, more);
    await onTheServer(actor);
    await toAnotherTab(actor, browser, url);
    await idle(actor, page, url);
  });
}

/** Statements and time of one edit, beside what it takes to load, check and compare the whole plan. */
async function onTheServer(actor: Actor): Promise<void> {
  const small: Actor = { ...actor, networkId: await createNetwork({ name: 'Small', slug: 'small' }) };
  await importPlan(small, generatedNetwork(50));
  const many = await editsOf(actor);
  const few = await editsOf(small);
  const whole = await timesOf(async () => {
    const now = await loadPlan(actor.networkId);
    const read = readPlan(planFile(now));
    if (read.ok) patchOf('network', 'network', now.network, read.value.network);
  }, 5);
  print({
    bench: 'edits/statements',
    value: many.statements,
    unit: 'statements',
    reference: { what: 'the same edit with 50 screens', value: few.statements },
    goal: 'value <= 12 and value = reference',
    met: many.statements <= 12 && many.statements === few.statements,
  });
  print({
    bench: 'edits/server-time',
    value: many.ms,
    unit: 'ms',
    reference: { what: 'the whole plan loaded and checked', value: whole },
    goal: 'value <= 25',
    met: many.ms <= 25,
  });
}

async function editsOf(actor: Actor): Promise<{ statements: number; ms: number }> {
  let n = 0;
  const once = () =>
    edit(actor, [
      { kind: 'booking', id: 'b7', set: { priority: 1 + (++n % 5), when: { windows: [['06:00', `09:0${n % 10}`]] } } },
    ]);
  await once();
  const original = pg.Client.prototype.query;
  let statements = 0;
  pg.Client.prototype.query = function counted(this: pg.Client, ...args: unknown[]) {
    statements++;
    return Reflect.apply(original, this, args) as never;
  } as never;
  await once();
  pg.Client.prototype.query = original;
  return { statements, ms: await timesOf(once, ROUNDS) };
}

const timesOf = async (work: () => Promise<unknown>, rounds: number) => {
  const values: number[] = [];
  for (let i = 0; i < rounds; i++) values.push((await timed(work)) * 1000);
  return median(values);
};

/** From an edit until another person's page shows it, and the bytes that the page is sent for it. */
async function toAnotherTab(actor: Actor, browser: Browser, url: string): Promise<void> {
  const page = await signedIn(browser, url, BENCH_PERSON);
  await page.goto(`${url}/playlists`);
  await page.getByText('Playlist 7', { exact: true }).waitFor();
  const traffic = await watchTraffic(page);
  const shown: number[] = [];
  const bytes: number[] = [];
  for (let n = 0; n < ROUNDS; n++) {
    const name = `Playlist 7, ${n}`;
    const before = traffic.bytes();
    // One element is looked at: to read all of a page's text holds it up.
    const seen = page.waitForFunction(
      (text) => document.querySelector('a[href="/playlists/p7"]')?.textContent?.includes(text) === true && Date.now(),
      name,
      { polling: 5 },
    );
    const begun = Date.now();
    await edit(actor, [{ kind: 'playlist', id: 'p7', set: { name } }]);
    shown.push(Number(await (await seen).jsonValue()) - begun);
    // The docket's sums follow when edits pause.
    await page.waitForTimeout(600);
    bytes.push(traffic.bytes() - before);
  }
  const plan: Plan = await loadPlan(actor.networkId);
  print({
    bench: 'edits/shown-elsewhere',
    value: median(shown),
    unit: 'ms',
    reference: { what: 'what is still taken for at once (0.1 s, common practice)', value: 100 },
    goal: 'value < 200',
    met: median(shown) < 200,
  });
  print({
    bench: 'edits/bytes-to-another-tab',
    value: median(bytes),
    unit: 'bytes',
    reference: { what: 'the plan as text', value: JSON.stringify(plan).length },
    goal: 'value <= 3000',
    met: median(bytes) <= 3000,
  });
  await page.context().close();
}

/** All that a page receives: answers, and the events of its stream. */
async function watchTraffic(page: Page): Promise<{ bytes(): number }> {
  const session: CDPSession = await page.context().newCDPSession(page);
  let sum = 0;
  session.on('Network.dataReceived', ({ encodedDataLength, dataLength }) => (sum += encodedDataLength || dataLength));
  session.on('Network.responseReceived', ({ response }) => (sum += response.encodedDataLength));
  await session.send('Network.enable');
  return { bytes: () => sum };
}

/** React tells its developer tools of every time that something was drawn. */
const COUNT_COMMITS = `
  window.commits = 0;
  const nothing = () => undefined;
  window.__REACT_DEVTOOLS_GLOBAL_HOOK__ = {
    supportsFiber: true, renderers: new Map(), inject: () => 1, checkDCE: nothing,
    onCommitFiberRoot: () => { window.commits++; }, onCommitFiberUnmount: nothing, onPostCommitFiberRoot: nothing,
  };`;

const IDLE_MS = 15_000;
const BEATS_A_SECOND = Math.round(SCREENS / 15);

declare global {
  interface Window {
    commits: number;
  }
}

/** What an idle page receives and draws in a second while every screen's player beats, beside the same page in silence. */
async function idle(actor: Actor, page: Page, url: string): Promise<void> {
  await rows(
    `INSERT INTO players (id, network_id, screen_id, token_hash, last_seen)
     SELECT gen_random_uuid(), network_id, id, slug, now() FROM plan_objects WHERE network_id = $1 AND kind = 'screen'`,
    [actor.networkId],
  );
  const players = await rows<{ id: string; screen: string; hash: string }>(
    `SELECT p.id, o.slug AS screen, e.hash FROM players p JOIN plan_objects o ON o.id = p.screen_id
     JOIN edition_screens e ON e.screen = o.slug
     WHERE p.network_id = $1 AND e.edition_id = (SELECT id FROM editions WHERE network_id = $1 AND number IS NOT NULL ORDER BY number DESC LIMIT 1)`,
    [actor.networkId],
  );
  const beat = async (from: number, count: number) => {
    for (let i = 0; i < count; i++) {
      const one = players[(from + i) % players.length];
      if (one)
        heartbeat(
          {
            id: one.id,
            networkId: actor.networkId,
            part: 1,
            screen: { id: one.screen, name: '', width: 1, height: 1 },
          },
          {
            ...{ state: 'playing', edition: 1, program: one.hash, playing: null, download: null },
            ...{ clockOffsetMs: Math.random() * 50, storage: null, errors: [], software: 'bench' },
          },
        );
    }
    await flushHeartbeats();
  };
  await beat(0, players.length);
  // As text: what compiles this file would put names of its own into it.
  await page.addInitScript({ content: COUNT_COMMITS });
  await page.goto(url);
  await page.locator('[data-screen]').first().waitFor({ timeout: 120_000 });
  const traffic = await watchTraffic(page);
  await page.waitForTimeout(8000);
  const measured = async (work: () => Promise<void>) => {
    const [bytes, commits] = [traffic.bytes(), await page.evaluate(() => window.commits)];
    const begun = Date.now();
    while (Date.now() - begun < IDLE_MS) {
      const second = Date.now();
      await work();
      await page.waitForTimeout(Math.max(0, 1000 - (Date.now() - second)));
    }
    const seconds = (Date.now() - begun) / 1000;
    const drawn = (await page.evaluate(() => window.commits)) - commits;
    return { bytes: (traffic.bytes() - bytes) / seconds, commits: drawn / seconds };
  };
  const silent = await measured(async () => {});
  let from = 0;
  const beating = await measured(async () => {
    await beat(from, BEATS_A_SECOND);
    from += BEATS_A_SECOND;
  });
  const what = 'the same page while no player beats';
  print({
    bench: 'edits/idle-bytes-a-second',
    value: beating.bytes,
    unit: 'bytes',
    reference: { what, value: Math.max(1, silent.bytes) },
    goal: 'value <= reference + 50',
    met: beating.bytes <= silent.bytes + 50,
  });
  print({
    bench: 'edits/idle-renders-a-second',
    value: beating.commits,
    unit: 'renders',
    reference: { what, value: Math.max(1, silent.commits) },
    goal: 'value <= reference + 1',
    met: beating.commits <= silent.commits + 1,
  });
}
