// `npm run kiosk:try`: runs the session that `lanternpost kiosk` writes, on a display that isn't there (Xvfb), against a small server of its own.
// Shows that the browser opens the player, that the player finds its bridge, and that all comes back after the browser is killed.
import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { extname, join } from 'node:path';
import { setUp } from './setup.mjs';

const DISPLAY = ':77';
const PATIENCE_MS = 60_000;
const TYPES = { '.html': 'text/html', '.js': 'text/javascript', '.css': 'text/css', '.woff2': 'font/woff2' };

setUp();
if (spawnSync('sh', ['-c', 'command -v Xvfb']).status !== 0) {
  console.log("• Debian's package: xvfb");
  execFileSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'xvfb'], { stdio: 'inherit' });
}

/** What was asked of the server and of the bridge, in turn. */
const asked = [];
const server = await listen((request, response) => {
  const { pathname } = new URL(request.url ?? '/', 'http://kiosk');
  if (pathname === '/api/player/v1/pairing') {
    let body = '';
    request.on('data', (piece) => (body += piece));
    request.on('end', () => {
      asked.push(`pairing ${body}`);
      const pairing = { device_code: 'x'.repeat(30), user_code: 'BCDF-GHJK', verification_uri: '/screens' };
      json(response, 200, { ...pairing, expires_in: 900, interval: 5 });
    });
    return;
  }
  if (pathname.startsWith('/api/'))
    return json(response, 400, { error: 'authorization_pending', error_description: '' });
  const file = pathname === '/player' ? 'public/player/index.html' : join('public', pathname);
  if (!existsSync(file)) return response.writeHead(404).end();
  response.writeHead(200, {
    ...{ 'content-type': TYPES[extname(file)] ?? 'image/svg+xml', 'lanternpost-player': '1' },
    'content-security-policy': "default-src 'self'; img-src 'self' blob:; connect-src 'self' http://127.0.0.1:*",
  });
  response.end(readFileSync(file));
});
const bridge = await listen((request, response) => {
  response.setHeader('access-control-allow-origin', `http://127.0.0.1:${server.address().port}`);
  response.setHeader('access-control-allow-headers', 'authorization, content-type');
  response.setHeader('access-control-allow-private-network', 'true');
  if (request.method === 'OPTIONS') return response.writeHead(204).end();
  asked.push(`bridge ${request.headers.authorization}`);
  json(response, 200, { can: [], measured: {} });
});

const folder = mkdtempSync(join(tmpdir(), 'lanternpost-kiosk-'));
const screen = spawn('Xvfb', [DISPLAY, '-screen', '0', '960x540x24', '-nolisten', 'tcp'], { stdio: 'ignore' });
let failed = null;
try {
  const address = `http://127.0.0.1:${server.address().port}`;
  const wishes = ['--server', address, '--enrol', 'a-key-of-more-than-twenty-letters', '--serial', 'SN-1'];
  execFileSync(process.execPath, [
    ...['bin/lanternpost.mjs', 'kiosk', ...wishes],
    ...['--bridge-port', String(bridge.address().port), '--folder', folder],
  ]);
  const player = /"(.*)"/.exec(readFileSync(join(folder, 'etc/lanternpost/kiosk.env'), 'utf8'))?.[1] ?? '';
  const token = readFileSync(join(folder, 'etc/lanternpost/bridge-token'), 'utf8').trim();
  for (const life of ['first start', 'after the browser was killed']) {
    asked.length = 0;
    const session = spawn(join(folder, 'etc/lanternpost/kiosk-session'), {
      detached: true,
      stdio: 'ignore',
      env: {
        ...{ ...process.env, DISPLAY, LANTERNPOST_PLAYER: player, STATE_DIRECTORY: join(folder, 'state') },
        LANTERNPOST_CHROMIUM_FLAGS: '--no-sandbox --disable-gpu --disable-background-networking',
      },
    });
    const ended = new Promise((done) => session.once('exit', done));
    try {
      await until(
        () => asked.some((one) => one.startsWith('pairing') && one.includes('"serial":"SN-1"')),
        `${life}: the player asks for a screen`,
      );
      await until(() => asked.includes(`bridge Bearer ${token}`), `${life}: the player finds its bridge`);
    } finally {
      process.kill(-session.pid, 'SIGKILL');
      await ended;
    }
    console.log(`✓ ${life}: the session ends with its browser, and systemd starts it again`);
  }
} catch (error) {
  failed = error;
} finally {
  screen.kill();
  server.close();
  bridge.close();
  rmSync(folder, { recursive: true, force: true, maxRetries: 5 });
}
if (failed) console.error(`✗ ${failed.message}\n  asked so far: ${asked.join(', ') || 'nothing'}`);
process.exit(failed ? 1 : 0);

function listen(answer) {
  return new Promise((done) => {
    const made = createServer(answer).listen(0, '127.0.0.1', () => done(made));
  });
}

function json(response, status, body) {
  response.writeHead(status, { 'content-type': 'application/json' });
  response.end(JSON.stringify(body));
}

async function until(holds, what) {
  const end = Date.now() + PATIENCE_MS;
  while (!holds()) {
    if (Date.now() > end) throw new Error(`${what}: this didn't happen within a minute`);
    await new Promise((done) => setTimeout(done, 100));
  }
  console.log(`✓ ${what}`);
}
