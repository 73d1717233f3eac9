import type { Browser } from '@playwright/test';
import pg from 'pg';
import { patchOf, planFile, readPlan, type Plan } from '@/core/plan';
import type { Actor } from '@/services/people';
import { createNetwork, draftPlan, edit, importPlan, loadPlan } from '@/services/plan';
import { median, print, timed } from './figure';
import { generatedNetwork } from './generated-network';
import { playersThatBeat, printIdle, watchTraffic } from './idle';
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
    const ready = '[data-screen]';
    await printIdle('edits/idle', { page, url, ready }, await playersThatBeat(actor), SCREENS);
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
