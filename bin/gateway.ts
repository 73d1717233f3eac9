import { serve } from '@hono/node-server';
import { getConnInfo } from '@hono/node-server/conninfo';
import { serveStatic } from '@hono/node-server/serve-static';
import { Hono } from 'hono';
import { logger } from '@/log';
import { createPlayerApp } from '@/protocol/app';
import { PLAYER_PAGE_HEADER } from '@/protocol/page';
import { playerBackend } from '@/services/screens';
import { clientAddress, trustedProxies } from './addresses';
import { options, type Command } from './options';

const usage = 'gateway [--port 4180] [--host 127.0.0.1]';

/** What goes with every answer, problems and pages alike. */
const HEADERS = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'same-origin',
  'x-frame-options': 'DENY',
  'cross-origin-opener-policy': 'same-origin',
  // A player shows what a capture device brings.
  'permissions-policy': 'camera=(self), microphone=(), geolocation=()',
  'content-security-policy':
    "default-src 'self'; img-src 'self' blob:; media-src 'self' blob:; connect-src 'self' http://127.0.0.1:*; object-src 'none'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
};

/** The player protocol and the player page, without the interface. */
export function createGateway(trusted = trustedProxies()): Hono {
  const gateway = new Hono();
  gateway.use('*', async (context, next) => {
    await next();
    for (const [name, value] of Object.entries(HEADERS)) context.header(name, value);
    if (/^\/player(\/|$)/.test(context.req.path)) context.header(PLAYER_PAGE_HEADER, '1');
    if (context.req.path === '/player/sw.js') context.header('service-worker-allowed', '/player');
  });
  gateway.route(
    '/',
    createPlayerApp(playerBackend, (context) =>
      clientAddress(getConnInfo(context).remote.address ?? '0.0.0.0', context.req.header('x-forwarded-for'), trusted),
    ),
  );
  gateway.get('/player', serveStatic({ path: 'public/player/index.html' }));
  gateway.get('/player/*', serveStatic({ root: 'public' }));
  return gateway;
}

export const command: Command = {
  usage,
  async run(args) {
    const { port, host } = options(
      args,
      { port: { type: 'string', default: '4180' }, host: { type: 'string', default: '127.0.0.1' } },
      usage,
    );
    const server = serve(
      {
        ...{ fetch: createGateway().fetch, port: Number(port), hostname: host },
        // Every body here is a small one.
        serverOptions: { requestTimeout: 30_000, headersTimeout: 20_000 },
      },
      (info) => logger.info({ port: info.port }, 'gateway runs'),
    );
    for (const signal of ['SIGINT', 'SIGTERM'] as const)
      process.once(signal, () => {
        server.close();
        process.exit(0);
      });
    return undefined;
  },
};
