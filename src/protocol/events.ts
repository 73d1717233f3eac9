import type { SSEStreamingApi } from 'hono/streaming';
import { eventOf } from './messages';
import type { PlayerBackend } from './player-backend';

const KEEP_ALIVE_MS = 15_000;
/** After so many of these a stream looks again whether its token still stands. */
const LOOK_AGAIN_EVERY = 4;

/** Writes what a player is to hear of, until it goes away or is unpaired: its target at once and at every change, and what hurries. */
export async function tellPlayer<P>(
  backend: PlayerBackend<P>,
  { player, token }: { readonly player: P; readonly token: string },
  stream: SSEStreamingApi,
): Promise<void> {
  let last = '';
  let wake = () => {};
  let open = true;
  let changed = true;
  let unpaired = false;
  let hurried = false;
  let silent = 0;
  const stop = backend.onChange(player, (what) => {
    changed = true;
    if (what === 'unpaired') unpaired = true;
    if (what === 'hurry') hurried = true;
    wake();
  });
  stream.onAbort(() => {
    open = false;
    stop();
    wake();
  });
  try {
    while (open) {
      if (unpaired) return await stream.writeSSE(eventOf({ kind: 'unpaired', data: {} }));
      if (changed) {
        changed = false;
        const target = await backend.targetOf(player);
        const key = JSON.stringify([
          target.edition,
          target.program,
          target.coming ?? [],
          target.screen,
          target.commands ?? [],
          target.firings ?? [],
        ]);
        if (key !== last) await stream.writeSSE(eventOf({ kind: 'target', data: target }));
        last = key;
        silent = 0;
        if (hurried) await stream.writeSSE(eventOf({ kind: 'hurry', data: {} }));
        hurried = false;
      } else {
        await stream.write(': still here\n\n');
        silent = (silent + 1) % LOOK_AGAIN_EVERY;
        // A message that ended the token may have been lost on its way here.
        if (silent === 0 && !(await backend.playerOf(token))) unpaired = true;
        if (unpaired) continue;
      }
      await new Promise<void>((resolve) => {
        const timer = setTimeout(resolve, KEEP_ALIVE_MS);
        wake = () => {
          clearTimeout(timer);
          resolve();
        };
        if (changed || !open) wake();
      });
    }
  } finally {
    stop();
  }
}
