import { OpenAPIHono, createRoute, z } from '@hono/zod-openapi';
import type { Context } from 'hono';
import { HTTPException } from 'hono/http-exception';
import { bodyLimit } from 'hono/body-limit';
import { streamSSE } from 'hono/streaming';
import {
  pairingSchema,
  problemSchema,
  reportSchema,
  shaParameter,
  targetSchema,
  tokenErrorSchema,
  tokenRequestSchema,
  tokenSchema,
  type Report,
  type Target,
} from './schemas';
import { Refusal } from '@/core';
import { fileResponse, problemResponse, type OpenFile, type StoredFile } from './file-response';
import { eventOf, type MessageKind } from './messages';

/** What is to be told of on the stream of events. */
export type Woken = MessageKind;

/** What the protocol needs done. `P` is whatever identifies a player. */
export interface PlayerBackend<P> {
  startPairing(address: string): Promise<{ deviceCode: string; userCode: string; expiresIn: number; interval: number }>;
  collectToken(deviceCode: string): Promise<{ token: string } | 'pending' | 'expired'>;
  playerOf(token: string): Promise<P | null>;
  targetOf(player: P): Promise<Target>;
  /** A program's canonical text, or null where this player may not have it. */
  programText(player: P, hash: string): Promise<string | null>;
  /** A file that this player may have, or null. */
  fileOf(player: P, sha256: string): Promise<StoredFile | null>;
  openFile: OpenFile;
  heartbeat(player: P, report: Report): void;
  /** Calls `wake` whenever the player's target may have changed, it was unpaired, or is asked to hurry. Returns how to stop. */
  onChange(player: P, wake: (what: Woken) => void): () => void;
  logError(error: unknown): void;
}

const BASE = '/api/player/v1';
const KEEP_ALIVE_MS = 15_000;
/** After so many of these a stream looks again whether its token still stands. */
const LOOK_AGAIN_EVERY = 4;
/** Every body of the protocol is a small JSON object. */
const BODY_BYTES = 2 ** 20;

const json = <T extends z.ZodType>(schema: T, description: string) => ({
  description,
  content: { 'application/json': { schema } },
});
const refusal = (description: string) => ({
  description,
  content: { 'application/problem+json': { schema: problemSchema } },
});
const security = [{ player: [] }];

const routes = {
  pair: createRoute({
    method: 'post',
    path: '/pairing',
    summary: 'Ask for a code to show (RFC 8628 section 3.1)',
    responses: { 200: json(pairingSchema, 'A code'), 429: refusal('Too many requests from this address') },
  }),
  token: createRoute({
    method: 'post',
    path: '/pairing/token',
    summary: 'Collect the token once the code was typed (RFC 8628 section 3.4)',
    request: { body: { required: true, content: { 'application/json': { schema: tokenRequestSchema } } } },
    responses: {
      200: json(tokenSchema, 'The token. Each call until the code is over gives a new one in place of the last'),
      400: json(tokenErrorSchema, 'Not typed yet, or over'),
      422: refusal('Malformed'),
    },
  }),
  target: createRoute({
    method: 'get',
    path: '/target',
    security,
    summary: 'What to play: the newest program. With If-None-Match, 304 while it is the same',
    responses: {
      200: json(targetSchema, 'The target'),
      304: { description: 'The same as before' },
      401: refusal('Unknown token'),
    },
  }),
  program: createRoute({
    method: 'get',
    path: '/programs/{sha256}',
    security,
    summary: 'A program by the SHA-256 of its RFC 8785 canonical form, which is what is sent',
    request: { params: shaParameter },
    responses: {
      200: json(z.object({}).openapi('Program', { description: 'docs/player-protocol.md' }), 'The program'),
      401: refusal('Unknown token'),
      404: refusal('No such program'),
      422: refusal('No SHA-256'),
    },
  }),
  asset: createRoute({
    method: 'get',
    path: '/assets/{sha256}',
    security,
    summary: 'A file by its SHA-256; one byte range at a time (RFC 9110 section 14)',
    request: { params: shaParameter },
    responses: {
      200: { description: 'The file' },
      206: { description: 'A part of it' },
      304: { description: 'The same as before' },
      401: refusal('Unknown token'),
      404: refusal('No such file'),
      416: refusal('Outside the file'),
      422: refusal('No SHA-256'),
      503: refusal('The stored copy is damaged or lost: keep what you have, and ask again later'),
    },
  }),
  heartbeat: createRoute({
    method: 'post',
    path: '/heartbeat',
    security,
    summary: 'Report, every 15 s and when something changes',
    request: { body: { required: true, content: { 'application/json': { schema: reportSchema } } } },
    responses: {
      200: json(targetSchema, 'The target, as of now'),
      401: refusal('Unknown token'),
      422: refusal('Malformed'),
    },
  }),
  events: createRoute({
    method: 'get',
    path: '/events',
    security,
    summary:
      'Server-sent events: target (a Target, at once and at every change), hurry, unpaired. Any may come twice or late',
    responses: { 200: { description: 'text/event-stream' }, 401: refusal('Unknown token') },
  }),
};

/** What the token's check leaves for what comes behind it. */
interface PlayerEnv<P> {
  Variables: { player: P; token: string };
}

/** The player protocol as one Hono app. `addressOf` returns where a request comes from, for rate limits. */
export function createPlayerApp<P>(
  backend: PlayerBackend<P>,
  addressOf: (context: Context) => string,
): OpenAPIHono<PlayerEnv<P>> {
  const app = new OpenAPIHono<PlayerEnv<P>>({
    defaultHook: (result) => {
      if (result.success) return;
      const issue = result.error.issues[0];
      throw new Refusal(
        422,
        issue ? `${issue.path.join('.') || 'The body'}: ${issue.message}` : 'This request is malformed.',
      );
    },
  }).basePath(BASE);

  app.onError((error) => {
    if (error instanceof Refusal) return problemResponse(error.status, error.message);
    if (error instanceof SyntaxError || error.message.startsWith('Malformed JSON'))
      return problemResponse(400, 'The body isn’t JSON. Send one JSON object.');
    if (error instanceof HTTPException && error.status === 415)
      return problemResponse(415, 'The body has another type. Send JSON, as application/json.');
    backend.logError(error);
    return problemResponse(500, 'Something went wrong on the server. Try again in a moment.');
  });
  app.notFound(() => problemResponse(404, 'There’s nothing at this address. See /api/player/v1/openapi.json.'));
  app.openAPIRegistry.registerComponent('securitySchemes', 'player', { type: 'http', scheme: 'bearer' });

  // A body is looked at only when the token was, and is never read past its limit.
  for (const route of Object.values(routes))
    if ('security' in route)
      app.use(route.path.replace(/\{(\w+)\}/g, ':$1'), async (context, next) => {
        const token = /^Bearer ([\w-]{20,100})$/.exec(context.req.header('authorization') ?? '')?.[1];
        const player = token === undefined ? null : await backend.playerOf(token);
        if (!player || token === undefined) throw new Refusal(401, 'This token is unknown. Pair this player again.');
        context.set('player', player);
        context.set('token', token);
        await next();
      });
  app.use(
    '*',
    bodyLimit({
      maxSize: BODY_BYTES,
      onError: () => problemResponse(413, 'This body is larger than 1 MB: send less.', { connection: 'close' }),
    }),
  );

  app.openapi(routes.pair, async (context) => {
    const { deviceCode, userCode, expiresIn, interval } = await backend.startPairing(addressOf(context));
    return context.json(
      { device_code: deviceCode, user_code: userCode, verification_uri: '/screens', expires_in: expiresIn, interval },
      200,
      { 'cache-control': 'no-store' },
    );
  });

  app.openapi(routes.token, async (context) => {
    const result = await backend.collectToken(context.req.valid('json').device_code);
    if (result === 'pending')
      return context.json(
        { error: 'authorization_pending', error_description: 'The code hasn’t been typed yet.' } as const,
        400,
      );
    if (result === 'expired')
      return context.json(
        { error: 'expired_token', error_description: 'The code has expired. Ask for another.' } as const,
        400,
      );
    return context.json({ access_token: result.token, token_type: 'Bearer' } as const, 200, {
      'cache-control': 'no-store',
    });
  });

  app.openapi(routes.target, async (context) => {
    const target = await backend.targetOf(context.var.player);
    const coming = (target.coming ?? [])
      .map(({ at, program, source }) => `-${at}-${program ?? 'none'}-${source ?? ''}`)
      .join('');
    const etag = `"${target.edition ?? 0}-${target.program ?? 'none'}${coming}"`;
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
    return context.json(await backend.targetOf(player), 200, { 'cache-control': 'no-store' });
  });

  app.openapi(routes.events, async (context) => {
    const { player, token } = context.var;
    return streamSSE(context, async (stream) => {
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
            const key = JSON.stringify([target.edition, target.program, target.coming ?? [], target.screen]);
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
    }) as never;
  });

  app.get('/openapi.json', (context) => context.json(describe(app)));
  return app;
}

function describe<P>(app: OpenAPIHono<PlayerEnv<P>>) {
  return app.getOpenAPI31Document({
    openapi: '3.1.0',
    info: {
      title: 'Lanternpost player protocol',
      version: '1',
      description: 'From box to lit: docs/player-protocol.md.',
      license: { name: 'MIT' },
    },
  });
}

/** The OpenAPI 3.1 description, generated from the schemas that check the requests. */
export function playerApiDescription(): object {
  return describe(createPlayerApp({} as PlayerBackend<never>, () => ''));
}

function immutable(sha256: string) {
  return { etag: `"${sha256}"`, 'cache-control': 'private, max-age=31536000, immutable' };
}
