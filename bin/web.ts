import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import next from 'next';
import { logger } from '@/log';
import { thinkBeside } from '@/services/thinking/thinker';
import { settleAddress, trustedProxies } from './addresses';
import { options, type Command } from './options';
import { bodyTrouble, endSlowBody } from './bodies';

const usage = 'web [--port 4170] [--host 127.0.0.1]';
const root = resolve(dirname(fileURLToPath(import.meta.url)), '..');
const HEADERS_WITHIN_MS = 20_000;

/** Whether a path's percent-encoding can be read: Next answers what can't with a fault of its own. */
function isAddress(url: string): boolean {
  try {
    decodeURIComponent(url.split('?')[0] ?? '');
    return true;
  } catch {
    return false;
  }
}

const isUpload = (url = '') => /^\/api\/uploads(\?|\/|$)/.test(url);

/** Whether a server action is called from a page that is not ours: Next answers that with a fault of its own. */
function isForeignAction({ method, headers }: IncomingMessage): boolean {
  const { origin, host } = headers;
  if (method !== 'POST' || headers['next-action'] === undefined || origin === undefined) return false;
  return URL.parse(origin)?.host !== (headers['x-forwarded-host'] ?? host);
}

function refuse(response: ServerResponse, status: number, title: string): void {
  response.writeHead(status, {
    ...{ 'content-type': 'application/problem+json', 'cache-control': 'no-store' },
    // What is on its way is not read: the line can't be used for another request.
    ...(status === 413 ? { connection: 'close' } : {}),
  });
  response.end(JSON.stringify({ type: 'about:blank', title, status }));
}

/** The interface and the player protocol, served by Next, behind our own server, which settles where a request comes from. */
export const command: Command = {
  usage,
  async run(args) {
    const { port, host } = options(
      args,
      { port: { type: 'string', default: '4170' }, host: { type: 'string', default: '127.0.0.1' } },
      usage,
    );
    const trusted = trustedProxies();
    thinkBeside(join(root, 'bin/lanternpost.mjs'));
    const app = next({ dev: false, dir: root, hostname: host, port: Number(port) });
    await app.prepare();
    const handle = app.getRequestHandler();
    // Bodies have time limits of their own: an upload takes as long as it moves.
    const server = createServer({ requestTimeout: 0, headersTimeout: HEADERS_WITHIN_MS }, (request, response) => {
      if (!isAddress(request.url ?? '/'))
        return refuse(response, 400, 'This address can’t be read. Check it for a single %.');
      settleAddress(request, trusted);
      if (isForeignAction(request))
        return refuse(response, 403, 'This request came from another website. Use the pages of this one.');
      const trouble = isUpload(request.url) ? null : bodyTrouble(request);
      if (trouble) return refuse(response, trouble.status, trouble.title);
      endSlowBody(request, response, isUpload(request.url));
      handle(request, response).catch((error: unknown) => {
        logger.error({ error }, 'request failed');
        response.destroy();
      });
    });
    server.listen(Number(port), host, () => logger.info({ port }, 'web runs'));
    for (const signal of ['SIGINT', 'SIGTERM'] as const)
      process.once(signal, () => {
        server.close();
        process.exit(0);
      });
    return undefined;
  },
};
