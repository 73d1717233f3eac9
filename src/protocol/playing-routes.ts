import { streamSSE } from 'hono/streaming';
import { Refusal } from '@/core/refusal';
import { tellPlayer } from './events';
import { fileResponse } from './file-response';
import type { PlayerApp, PlayerBackend } from './player-backend';
import { routes } from './routes';
import type { Target } from './schemas';

/** What a paired player asks for and tells: its target, programs, files, reports, and the stream of events. */
export function addPlaying<P>(app: PlayerApp<P>, backend: PlayerBackend<P>): void {
  app.openapi(routes.target, async (context) => {
    const target = await targetNow(backend, context.var.player);
    const coming = (target.coming ?? [])
      .map(({ at, program, source }) => `-${at}-${program ?? 'none'}-${source ?? ''}`)
      .join('');
    const commands = (target.commands ?? []).map(({ id }) => `-${id}`).join('');
    const firings = (target.firings ?? []).map(({ id }) => `-${id}`).join('');
    const { allowed = true, everyMs = 0 } = target.glimpses ?? {};
    const glimpses = `-${allowed}-${everyMs}`;
    const etag = `"${target.edition ?? 0}-${target.program ?? 'none'}${coming}${commands}${firings}${glimpses}"`;
    if (context.req.header('if-none-match') === etag)
      return new Response(null, { status: 304, headers: { etag } }) as never;
    return context.json(target, 200, { etag, 'cache-control': 'private, no-cache' });
  });

  app.openapi(routes.program, async (context) => {
    const { sha256 } = context.req.valid('param');
    const text = await backend.programText(context.var.player, sha256);
    if (text === null) throw new Refusal(404, 'This player has no such program.');
    return new Response(text, { headers: { 'content-type': 'application/json', ...immutable(sha256) } }) as never;
  });

  app.openapi(routes.asset, async (context) => {
    const { sha256 } = context.req.valid('param');
    const { player } = context.var;
    const file = await backend.fileOf(player, sha256);
    if (!file) throw new Refusal(404, 'This player has no such file.');
    return (await fileResponse(context.req.raw, file, backend.openFile)) as never;
  });

  app.openapi(routes.heartbeat, async (context) => {
    const { player } = context.var;
    backend.heartbeat(player, context.req.valid('json'));
    return context.json(await targetNow(backend, player), 200, { 'cache-control': 'no-store' });
  });

  app.openapi(routes.outcomes, async (context) => {
    await backend.noteOutcomes(context.var.player, context.req.valid('json').outcomes);
    return context.body(null, 204);
  });

  app.openapi(routes.firings, async (context) => {
    await backend.noteFirings(context.var.player, context.req.valid('json').firings);
    return context.body(null, 204);
  });

  app.openapi(routes.glimpse, async (context) => {
    const picture = new Uint8Array(await context.req.arrayBuffer());
    await backend.takeGlimpse(context.var.player, picture, context.req.valid('query'));
    return context.body(null, 204);
  });

  app.openapi(routes.events, (context) => {
    const { player, token } = context.var;
    return streamSSE(context, (stream) => tellPlayer(backend, { player, token }, stream)) as never;
  });
}

/** A player's target. Its time is the middle of the work, since the player takes it for the middle of the exchange (`ServerClock`). */
async function targetNow<P>(backend: PlayerBackend<P>, player: P): Promise<Target> {
  const begun = Date.now();
  const target = await backend.targetOf(player);
  return { ...target, serverTime: target.serverTime - Math.round((Date.now() - begun) / 2) };
}

function immutable(sha256: string) {
  return { etag: `"${sha256}"`, 'cache-control': 'private, max-age=31536000, immutable' };
}
