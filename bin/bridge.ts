import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { serve } from '@hono/node-server';
import { LinuxDevice } from '@/bridge/device';
import { thisMachine } from '@/bridge/programs';
import { createBridge } from '@/bridge/server';
import { options, type Command } from './options';

const usage = `bridge --server URL [--port 4190] [--token-file FILE] [--input ID]
       Runs beside a kiosk browser, and lets its player control this device: display, brightness, volume, turn, pictures, restart.
       --server       the server whose player page may use it
       --token-file   where its token is kept; it is made if it isn't there. Open the player at URL/player#bridge=PORT.TOKEN
       --input        the display’s input where this box is plugged in, such as hdmi-1: to switch back to it from another`;

const DEFAULT_PORT = 4190;

export const command: Command = {
  usage,
  async run(args) {
    const given = options(
      args,
      {
        server: { type: 'string' },
        port: { type: 'string', default: String(DEFAULT_PORT) },
        'token-file': { type: 'string' },
        input: { type: 'string' },
      },
      usage,
    );
    if (!given.server || !URL.canParse(given.server)) {
      console.error(`Usage: lanternpost ${usage}`);
      return 2;
    }
    const { origin } = new URL(given.server);
    const token = tokenIn(given['token-file']);
    const bridge = createBridge(new LinuxDevice(thisMachine, given.input), { token, origin });
    const port = Number(given.port);
    const server = serve({ fetch: bridge.fetch, port, hostname: '127.0.0.1' }, () =>
      console.log(`Bridge for ${origin}: open the player at ${origin}/player#bridge=${port}.${token}`),
    );
    await new Promise<void>((ended) => {
      for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => server.close(() => ended()));
    });
    return 0;
  },
};

/** The token of a file, which only its owner can read; a new one if there is none. */
export function tokenIn(file: string | undefined): string {
  if (file !== undefined && existsSync(file)) return readFileSync(file, 'utf8').trim();
  const token = randomBytes(32).toString('base64url');
  if (file !== undefined) writeFileSync(file, `${token}\n`, { mode: 0o600 });
  return token;
}
