import { OpenAPIHono } from '@hono/zod-openapi';
import type { Context } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import { HTTPException } from 'hono/http-exception';
import { Refusal } from '@/core/refusal';
import { problemResponse } from './file-response';
import { addPairing } from './pairing-routes';
import { addPlaying } from './playing-routes';
import type { PlayerApp, PlayerBackend, PlayerEnv } from './player-backend';
import { routes } from './routes';

const BASE = '/api/player/v1';
/** Every body of the protocol is a small JSON object. */
const BODY_BYTES = 2 ** 20;

/** The player protocol as one Hono app. `addressOf` returns where a request comes from, for rate limits. */
export function createPlayerApp<P>(backend: PlayerBackend<P>, addressOf: (context: Context) => string): PlayerApp<P> {
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

  answerErrors(app, backend);
  guard(app, backend);
  addPairing(app, backend, addressOf);
  addPlaying(app, backend);
  app.get('/openapi.json', (context) => context.json(describe(app)));
  return app;
}

/** Answers what goes wrong as a problem (RFC 9457), and logs what is not expected. */
function answerErrors<P>(app: PlayerApp<P>, backend: PlayerBackend<P>): void {
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
}

/** Lets in requests with a known token, on routes that need one, and no body past its limit. */
function guard<P>(app: PlayerApp<P>, backend: PlayerBackend<P>): void {
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
  const counted = bodyLimit({
    maxSize: BODY_BYTES,
    onError: () => problemResponse(413, 'This body is larger than 1 MB: send less.', { connection: 'close' }),
  });
  // A length in the head of a request holds, since HTTP ends the body there: only others have to be counted as they come, which costs more.
  app.use('*', (context, next) => (tellsShortBody(context) ? next() : counted(context, next)));
}

function tellsShortBody({ req }: Context): boolean {
  const length = req.header('content-length');
  const isTold = length !== undefined && /^\d+$/.test(length) && req.header('transfer-encoding') === undefined;
  return isTold && Number(length) <= BODY_BYTES;
}

function describe<P>(app: PlayerApp<P>) {
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
