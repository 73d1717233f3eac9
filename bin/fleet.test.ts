import { spawn } from 'node:child_process';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';

jest.setTimeout(60_000);

test('players that are pointed at something else than the interface say so, in a sentence', async () => {
  const server = createServer((_request, response) => response.writeHead(404).end('404 Not Found')).listen(
    0,
    '127.0.0.1',
  );
  await new Promise((done) => server.once('listening', done));
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const fleet = spawn(
    process.execPath,
    [
      'bin/lanternpost.mjs',
      'fleet',
      '--server',
      address,
      '--players',
      '1',
      '--email',
      'a@example.org',
      '--password',
      'x',
    ],
    { stdio: ['ignore', 'ignore', 'pipe'], env: process.env },
  );
  let told = '';
  fleet.stderr.on('data', (chunk: Buffer) => (told += chunk.toString()));
  const code = await new Promise((done) => fleet.once('exit', done));
  server.close();
  expect(code).toBe(1);
  expect(told).toContain(`${address} answered 404 instead of a login. Set --server to the interface`);
});
