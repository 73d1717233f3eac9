import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { Readable } from 'node:stream';
import fc from 'fast-check';
import { playerApiDescription, createPlayerApp } from './app';
import type { PlayerBackend, Woken } from './player-backend';
import { ProtocolClient, ProtocolError } from './client';
import { parseRange } from './file-response';
import type { Report, Target } from './schemas';

const bytes = Buffer.from('0123456789'.repeat(1000));
const sha256 = createHash('sha256').update(bytes).digest('hex');
const token = 'a-token-of-more-than-twenty-letters';
const target: Target = {
  screen: { id: 'hall', name: 'Hall', width: 1920, height: 1080 },
  edition: 3,
  program: 'a'.repeat(64),
  serverTime: 1_000_000,
};

/** A backend with one player, one program and one file; what is told to it is kept in `told`. */
function fake() {
  const told: Report[] = [];
  const errors: unknown[] = [];
  const pictures: number[][] = [];
  const wakes = new Set<(what: Woken) => void>();
  const backend: PlayerBackend<string> = {
    startPairing: async () => ({ deviceCode: 'd'.repeat(30), userCode: 'BCDF-GHJK', expiresIn: 900, interval: 2 }),
    collectToken: async (code) => (code.startsWith('d') ? { token } : code.startsWith('p') ? 'pending' : 'expired'),
    playerOf: async (given) => (given === token ? 'hall' : null),
    targetOf: async () => target,
    programText: async (_player, hash) => (hash === target.program ? '{"format":"lanternpost/program"}' : null),
    fileOf: async (_player, hash) => (hash === sha256 ? { sha256, type: 'image/png', bytes: bytes.length } : null),
    openFile: async (_file, range) => Readable.from([range ? bytes.subarray(range.start, range.end + 1) : bytes]),
    heartbeat: (_player, report) => void told.push(report),
    onChange: (_player, wake) => {
      wakes.add(wake);
      return () => wakes.delete(wake);
    },
    noteOutcomes: () => Promise.resolve(),
    noteFirings: () => Promise.resolve(),
    takeGlimpse: async (_player, picture, { at }) => void pictures.push([picture.length, at]),
    logError: (error) => void errors.push(error),
  };
  const app = createPlayerApp(backend, () => '127.0.0.1');
  const ask = (path: string, init: RequestInit = {}) =>
    app.request(`/api/player/v1${path}`, {
      ...init,
      headers: { authorization: `Bearer ${token}`, ...(init.headers as object) },
    });
  return { backend, app, ask, told, errors, wakes, pictures };
}

test('the description in docs is current: `npm run openapi` writes it', () => {
  expect(JSON.parse(readFileSync('docs/openapi.json', 'utf8'))).toEqual(
    JSON.parse(JSON.stringify(playerApiDescription())),
  );
});

test('RFC 8628: a code, then pending, expired, or a token', async () => {
  const { ask } = fake();
  expect(await (await ask('/pairing', { method: 'POST' })).json()).toMatchObject({
    user_code: 'BCDF-GHJK',
    expires_in: 900,
    interval: 2,
  });
  const collect = async (device_code: string) => {
    const response = await ask('/pairing/token', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ device_code }),
    });
    return [response.status, await response.json()];
  };
  expect(await collect('p'.repeat(30))).toMatchObject([400, { error: 'authorization_pending' }]);
  expect(await collect('x'.repeat(30))).toMatchObject([400, { error: 'expired_token' }]);
  expect(await collect('d'.repeat(30))).toMatchObject([200, { access_token: token, token_type: 'Bearer' }]);
});

test.each([
  ['GET', '/target'],
  ['GET', `/programs/${'a'.repeat(64)}`],
  ['GET', `/assets/${sha256}`],
  ['GET', '/events'],
])('%s %s without a known token is a 401 problem', async (method, path) => {
  const { app } = fake();
  for (const authorization of [undefined, 'Bearer', 'Bearer wrong-token-of-twenty-letters', 'Basic abc']) {
    const response = await app.request(`/api/player/v1${path}`, {
      method,
      headers: authorization ? { authorization } : {},
    });
    expect([response.status, response.headers.get('content-type')]).toEqual([401, 'application/problem+json']);
    expect(await response.json()).toEqual({
      type: 'about:blank',
      title: 'This token is unknown. Pair this player again.',
      status: 401,
    });
  }
});

test('RFC 9457: what is malformed, unknown or broken is told as a problem, once', async () => {
  const { ask, errors, backend } = fake();
  const post = (path: string, body: string) =>
    ask(path, { method: 'POST', headers: { 'content-type': 'application/json' }, body });
  const status = async (response: Response | Promise<Response>) => [
    (await response).status,
    ((await (await response).json()) as { title: string }).title,
  ];
  expect(await status(ask('/assets/xyz'))).toEqual([422, expect.stringContaining('64 digits')]);
  expect(await status(ask('/programs/..%2Fetc'))).toEqual([422, expect.stringContaining('64 digits')]);
  expect(await status(ask(`/programs/${'b'.repeat(64)}`))).toEqual([404, expect.stringContaining('no such program')]);
  expect(await status(ask('/nowhere'))).toEqual([404, expect.stringContaining('nothing at this address')]);
  expect(await status(post('/heartbeat', '{'))).toEqual([400, expect.stringContaining('The body isn’t JSON.')]);
  expect(await status(post('/heartbeat', '{"state":"dancing"}'))).toEqual([422, expect.stringContaining('state')]);
  expect(errors).toEqual([]);
  backend.targetOf = () => Promise.reject(new Error('the database is gone'));
  expect(await status(ask('/target'))).toEqual([500, expect.stringContaining('Something went wrong on the server.')]);
  expect(errors).toHaveLength(1);
});

const heard: Report = {
  state: 'playing',
  edition: 3,
  program: target.program,
  playing: null,
  download: null,
  clockOffsetMs: 0,
  storage: null,
  errors: [],
  software: 'test',
};

describe('a heartbeat that is none', () => {
  const beat = async (body: string, headers: Record<string, string> = { 'content-type': 'application/json' }) => {
    const { ask, told, errors } = fake();
    const response = await ask('/heartbeat', { method: 'POST', headers, body });
    return { status: response.status, told, errors, title: ((await response.json()) as { title: string }).title };
  };
  const errors = (message: string) => JSON.stringify({ ...heard, errors: [{ at: 0, message }] });

  test.each([
    ['NUL in a text', errors('a\u0000b'), 'errors.0.message: A message contains a character that can’t be stored.'],
    ['half a character', errors('\ud83d'), 'errors.0.message: A message contains a character that can’t be stored.'],
    ['a text with a line break', errors('a\nb'), 'one line'],
    ['a text without end', errors('x'.repeat(301)), 'at most 300 characters'],
    [
      'more bytes than there are',
      JSON.stringify({ ...heard, storage: { usedBytes: 1e300, limitBytes: 1 } }),
      'usedBytes',
    ],
    ['a number past all measure', errors('').replace('"clockOffsetMs":0', '"clockOffsetMs":1e999'), 'clockOffsetMs'],
    ['6 000 brackets', '['.repeat(6000) + ']'.repeat(6000), 'expected object'],
  ])('%s is a 422 with a sentence', async (_, body, sentence) => {
    expect(await beat(body)).toEqual({ status: 422, told: [], errors: [], title: expect.stringContaining(sentence) });
  });

  test('The body isn’t JSON., by its words or by its type', async () => {
    expect(await beat('['.repeat(6000))).toMatchObject({ status: 400, told: [], errors: [] });
    expect(await beat(errors(''), { 'content-type': 'text/plain' })).toMatchObject({
      status: 415,
      told: [],
      errors: [],
    });
  });

  test('the longest texts in any script are taken', async () => {
    const { ask, told } = fake();
    const body = errors('👨‍👩‍👧‍👦'.repeat(270));
    const headers = { 'content-type': 'application/json' };
    expect((await ask('/heartbeat', { method: 'POST', headers, body })).status).toBe(200);
    expect(told).toHaveLength(1);
  });
});

test('a body is read only behind a known token, and never past its limit', async () => {
  const { app, ask, told } = fake();
  let sent = 0;
  const flood = () =>
    new ReadableStream<Uint8Array>({
      pull: (out) => {
        sent += 65_536;
        if (sent > 64 * 2 ** 20) out.close();
        else out.enqueue(new Uint8Array(65_536).fill(32));
      },
    });
  const init = (): RequestInit & { duplex: 'half' } => ({
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: flood(),
    duplex: 'half',
  });
  expect((await app.request('/api/player/v1/heartbeat', init())).status).toBe(401);
  expect(sent).toBeLessThan(2 ** 18);
  const response = await ask('/heartbeat', init());
  expect([response.status, response.headers.get('content-type')]).toEqual([413, 'application/problem+json']);
  expect(sent).toBeLessThan(4 * 2 ** 20);
  expect((await app.request('/api/player/v1/pairing/token', init())).status).toBe(413);
  expect(told).toEqual([]);
});

test('a picture of the glass comes as its bytes, with its instant; of an instant that is none nothing is taken', async () => {
  const { ask, pictures } = fake();
  const send = (query: string) => ask(`/glimpses?${query}`, { method: 'POST', body: new Uint8Array(7) });
  expect((await send('at=1000')).status).toBe(204);
  expect(pictures).toEqual([[7, 1000]]);
  for (const wrong of ['', 'at=soon', 'at=1e99', 'at=1000&program=x']) expect((await send(wrong)).status).toBe(422);
  expect(pictures).toHaveLength(1);
});

test('a target that is the same is a 304', async () => {
  const { ask } = fake();
  const etag = (await ask('/target')).headers.get('etag') ?? '';
  expect((await ask('/target', { headers: { 'if-none-match': etag } })).status).toBe(304);
});

test('a program is sent as the canonical text that its hash names', async () => {
  const { ask } = fake();
  const response = await ask(`/programs/${target.program}`);
  expect(await response.text()).toBe('{"format":"lanternpost/program"}');
  expect(response.headers.get('cache-control')).toContain('immutable');
});

describe('RFC 9110 section 14: ranges of an asset', () => {
  test.each([
    ['bytes=0-9', 206, 'bytes 0-9/10000', '0123456789'],
    ['bytes=9995-', 206, 'bytes 9995-9999/10000', '56789'],
    ['bytes=-3', 206, 'bytes 9997-9999/10000', '789'],
    ['bytes=9998-20000', 206, 'bytes 9998-9999/10000', '89'],
  ])('%s', async (range, status, contentRange, text) => {
    const response = await fake().ask(`/assets/${sha256}`, { headers: { range } });
    expect([response.status, response.headers.get('content-range'), await response.text()]).toEqual([
      status,
      contentRange,
      text,
    ]);
  });

  test('outside the file is a 416, malformed or many is all of it', async () => {
    const { ask } = fake();
    const outside = await ask(`/assets/${sha256}`, { headers: { range: 'bytes=10000-' } });
    expect([outside.status, outside.headers.get('content-range')]).toEqual([416, 'bytes */10000']);
    for (const range of ['bytes=5-2', 'bytes=0-1,4-5', 'lines=1-2', 'bytes=-'])
      expect((await ask(`/assets/${sha256}`, { headers: { range } })).status).toBe(200);
  });

  test('If-Range with another ETag sends all, If-None-Match sends nothing', async () => {
    const { ask } = fake();
    expect((await ask(`/assets/${sha256}`, { headers: { range: 'bytes=0-1', 'if-range': '"other"' } })).status).toBe(
      200,
    );
    expect(
      (await ask(`/assets/${sha256}`, { headers: { range: 'bytes=0-1', 'if-range': `"${sha256}"` } })).status,
    ).toBe(206);
    expect((await ask(`/assets/${sha256}`, { headers: { 'if-none-match': `"${sha256}"` } })).status).toBe(304);
  });

  test('any range that is satisfied lies inside the file', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 500 }), fc.option(fc.nat(600)), fc.option(fc.nat(600)), (size, a, b) => {
        const range = parseRange(`bytes=${a ?? ''}-${b ?? ''}`, size);
        if (range && range !== 'outside')
          expect(0 <= range.start && range.start <= range.end && range.end < size).toBe(true);
      }),
    );
  });
});

test('the client measures its clock, reports, fetches and resumes', async () => {
  const { app, told } = fake();
  const fetcher = ((input: string, init: RequestInit) =>
    app.request(new URL(input).pathname, init)) as unknown as typeof fetch;
  const client = new ProtocolClient('http://player.test', token, () => 760_000, fetcher);
  // The server's work takes no time by a clock that stands still: its time is then the target's own.
  jest.spyOn(Date, 'now').mockReturnValue(0);
  expect(await client.target()).toEqual(target);
  expect(client.clockOffsetMs).toBe(240_000);
  jest.mocked(Date.now).mockRestore();
  const report: Report = { ...heard, clockOffsetMs: 240_000 };
  await client.heartbeat(report);
  expect(told).toEqual([report]);
  const { body, resumed } = await client.asset(sha256, 9990);
  expect([resumed, await new Response(body).text()]).toEqual([true, '0123456789']);
  const stranger = new ProtocolClient('http://player.test', 'another-token-of-twenty-letters', Date.now, fetcher);
  await expect(stranger.target()).rejects.toEqual(
    new ProtocolError(401, 'This token is unknown. Pair this player again.', true),
  );
});

test('events: the target at once, again when it changes, a word to hurry, and the end of a pairing', async () => {
  const { app, wakes } = fake();
  const fetcher = ((input: string, init: RequestInit) =>
    app.request(new URL(input).pathname, init)) as unknown as typeof fetch;
  const client = new ProtocolClient('http://player.test', token, Date.now, fetcher);
  const seen: (number | null | string)[] = [];
  const ended = client.events((event) => {
    seen.push(event.kind === 'target' ? event.data.edition : event.kind);
    if (seen.length === 1) {
      target.edition = 4;
      wakes.forEach((wake) => wake('target'));
    } else if (seen.length === 2) wakes.forEach((wake) => wake('hurry'));
    else if (seen.length === 3) wakes.forEach((wake) => wake('unpaired'));
  }, new AbortController().signal);
  await ended;
  target.edition = 3;
  expect(seen).toEqual([3, 4, 'hurry', 'unpaired']);
});
