import type { CDPSession, Page } from '@playwright/test';
import { MINUTE } from '@/core/instant';
import { rows } from '@/database';
import type { Actor } from '@/services/people';
import { flushHeartbeats, heartbeat } from '@/services/screens';
import { print } from './figure';

/** All that a page receives: answers, and the events of its stream. */
export async function watchTraffic(page: Page): Promise<{ bytes(): number }> {
  const session: CDPSession = await page.context().newCDPSession(page);
  let sum = 0;
  const streams = new Set<string>();
  session.on('Network.responseReceived', ({ requestId, response }) => {
    if (response.mimeType === 'text/event-stream') streams.add(requestId);
  });
  // A stream never ends; of all else the bytes on the wire are known when it has.
  session.on('Network.dataReceived', ({ requestId, encodedDataLength, dataLength }) => {
    if (streams.has(requestId)) sum += encodedDataLength || dataLength;
  });
  session.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    if (!streams.has(requestId)) sum += encodedDataLength;
  });
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
const BEAT_SECONDS = 15;

declare global {
  interface Window {
    commits: number;
  }
}

/** Gives every screen of a published network a player, and returns what lets some of them beat: `count` from the `from`th on. */
export async function playersThatBeat(actor: Actor): Promise<(from: number, count: number) => Promise<void>> {
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
  return beat;
}

/** What an idle page receives and draws in a second while every screen's player beats, beside the same page in silence. `ready` is there when it is; `minutely` is what the page asks for once a minute. */
export async function printIdle(
  bench: string,
  {
    page,
    url,
    ready,
    minutely,
  }: { readonly page: Page; readonly url: string; readonly ready: string; readonly minutely?: string },
  beat: (from: number, count: number) => Promise<void>,
  screens: number,
): Promise<void> {
  const beatsASecond = Math.round(screens / BEAT_SECONDS);
  await beat(0, screens);
  // As text: what compiles this file would put names of its own into it.
  await page.addInitScript({ content: COUNT_COMMITS });
  await page.goto(url);
  await page.locator(ready).first().waitFor({ timeout: 120_000 });
  const traffic = await watchTraffic(page);
  await page.waitForTimeout(8000);
  const measured = async (forMs: number, work: () => Promise<void>) => {
    const [bytes, commits] = [traffic.bytes(), await page.evaluate(() => window.commits)];
    const begun = Date.now();
    while (Date.now() - begun < forMs) {
      const second = Date.now();
      await work();
      await page.waitForTimeout(Math.max(0, 1000 - (Date.now() - second)));
    }
    const seconds = (Date.now() - begun) / 1000;
    const drawn = (await page.evaluate(() => window.commits)) - commits;
    return { bytes: (traffic.bytes() - bytes) / seconds, commits: drawn / seconds };
  };
  const silent = await measured(IDLE_MS, async () => {});
  let from = 0;
  const before = traffic.bytes();
  await page.evaluate((path) => (path ? fetch(path).then((answer) => answer.text()) : null), minutely);
  await page.waitForTimeout(200);
  const asked = (traffic.bytes() - before) / 60;
  await beat(0, screens);
  const beating = await measured(minutely ? MINUTE : IDLE_MS, async () => {
    await beat(from, beatsASecond);
    from += beatsASecond;
  });
  const what = 'the same page while no player beats';
  const reference = minutely
    ? { what: `${minutely}, which it asks for once a minute, alone`, value: asked }
    : { what, value: Math.max(1, silent.bytes) };
  print({
    bench: `${bench}-bytes-a-second`,
    value: beating.bytes,
    unit: 'bytes',
    reference,
    goal: 'value <= reference + 50',
    met: beating.bytes <= reference.value + 50,
  });
  print({
    bench: `${bench}-renders-a-second`,
    value: beating.commits,
    unit: 'renders',
    reference: { what, value: Math.max(1, silent.commits) },
    goal: 'value <= reference + 1',
    met: beating.commits <= silent.commits + 1,
  });
}
