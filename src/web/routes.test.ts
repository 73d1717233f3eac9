import { logger } from '@/log';
import { answer, json, readJson } from './routes';

beforeEach(() => jest.spyOn(logger, 'info').mockImplementation(() => undefined));
afterEach(() => jest.restoreAllMocks());

const post = (headers: Record<string, string>, body: BodyInit = '{}') =>
  new Request('http://signs.test/api/session', { method: 'POST', headers, body, duplex: 'half' } as RequestInit);
const statusOf = async (request: Request) => {
  const response = await answer(request, async () => {
    await readJson(request);
    return json({});
  });
  return [response.status, ((await response.json()) as { title?: string }).title];
};

test.each<[string, Record<string, string>, number]>([
  ['a program, which says nothing of where it comes from', {}, 200],
  ['our own page', { origin: 'http://signs.test', host: 'signs.test', 'sec-fetch-site': 'same-origin' }, 200],
  [
    'our own page behind a proxy',
    { origin: 'https://signs.example', host: 'inner', 'x-forwarded-host': 'signs.example' },
    200,
  ],
  ['another website', { origin: 'https://evil.example', host: 'signs.test' }, 403],
  ['another site, by what the browser says', { 'sec-fetch-site': 'cross-site' }, 403],
  ['a page without an origin of its own', { origin: 'null', host: 'signs.test' }, 403],
  ['an origin that is none', { origin: 'not an address', host: 'signs.test' }, 403],
])('%s', async (_, headers, status) => {
  expect((await statusOf(post(headers)))[0]).toBe(status);
});

test('reading changes nothing: it is let through from everywhere', async () => {
  const request = new Request('http://signs.test/api/zones', { headers: { origin: 'https://evil.example' } });
  expect((await answer(request, async () => json(1))).status).toBe(200);
});

test('a body that is no JSON, in bytes or at all', async () => {
  expect(await statusOf(post({}, '{'))).toEqual([400, 'This isn’t JSON. Check the program that wrote it.']);
  expect(await statusOf(post({}, ''))).toEqual([400, 'This isn’t JSON. Check the program that wrote it.']);
  expect((await statusOf(post({}, '['.repeat(6000))))[0]).toBe(400);
  expect((await statusOf(post({}, '['.repeat(6000) + ']'.repeat(6000))))[0]).toBe(400);
  expect((await statusOf(post({}, '['.repeat(30) + ']'.repeat(30))))[0]).toBe(200);
});

test('a body past 1 MB is refused by its length, or as soon as it shows', async () => {
  expect((await statusOf(post({ 'content-length': String(300 * 2 ** 20) }, '{}')))[0]).toBe(413);
  let sent = 0;
  const flood = new ReadableStream<Uint8Array>({
    pull: (out) => {
      sent += 65_536;
      out.enqueue(new Uint8Array(65_536).fill(32));
    },
  });
  expect(await statusOf(post({}, flood))).toEqual([413, 'This body is larger than 1 MB. Send less at a time.']);
  expect(sent).toBeLessThan(2 * 2 ** 20);
});
