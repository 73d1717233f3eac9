import { PLAYER_PAGE_HEADER } from '@/protocol/page';
import { freshOrKept, keepAll, type PageCache } from './kept-page';

const ours = (text: string) => new Response(text, { headers: { [PLAYER_PAGE_HEADER]: '1' } });
const portal = () => new Response('<h1>Log in to this network</h1>', { headers: { 'content-type': 'text/html' } });

function cacheOf(parts: Record<string, string> = {}): PageCache & { readonly parts: Map<string, string> } {
  const kept = new Map(Object.entries(parts));
  const pathOf = (request: Request | string) => (typeof request === 'string' ? request : new URL(request.url).pathname);
  return {
    parts: kept,
    match: async (request) => {
      const text = kept.get(pathOf(request));
      return text === undefined ? undefined : ours(text);
    },
    put: async (request, response) => void kept.set(pathOf(request), await response.text()),
  };
}

const request = new Request('http://server.test/player?site=quay');
const answering = (response: () => Response | Promise<Response>) => (async () => response()) as typeof fetch;

test('what our server sends is shown, and kept', async () => {
  const cache = cacheOf({ '/player': 'old' });
  expect(
    await (
      await freshOrKept(
        request,
        cache,
        answering(() => ours('new')),
      )
    ).text(),
  ).toBe('new');
  expect(cache.parts.get('/player')).toBe('new');
});

test.each([
  ['a portal that says 200', portal],
  ["a proxy's 502", () => new Response('Bad gateway', { status: 502 })],
  ['a 401 of something in between', () => new Response('no', { status: 401 })],
  ['our own server in trouble', () => new Response('no', { status: 503, headers: { [PLAYER_PAGE_HEADER]: '1' } })],
  [
    'a redirect to somebody else',
    () => Object.defineProperty(ours('their page'), 'redirected', { value: true }) as Response,
  ],
  ['no network', () => Promise.reject(new TypeError('no network'))],
])('%s: what is kept is shown, and stays as it is', async (_, response) => {
  const cache = cacheOf({ '/player': 'kept' });
  expect(await (await freshOrKept(request, cache, answering(response))).text()).toBe('kept');
  expect(cache.parts.get('/player')).toBe('kept');
});

test('a network that takes its time does not hold the page up; what comes late is kept for the next start', async () => {
  const cache = cacheOf({ '/player': 'kept' });
  let answer: (response: Response) => void = () => undefined;
  const slow = new Promise<Response>((resolve) => (answer = resolve));
  expect(
    await (
      await freshOrKept(
        request,
        cache,
        answering(() => slow),
        1,
      )
    ).text(),
  ).toBe('kept');
  answer(ours('late'));
  await new Promise(setImmediate);
  expect(cache.parts.get('/player')).toBe('late');
});

test('where nothing is kept, what came is shown, and never kept unless it is ours', async () => {
  const cache = cacheOf();
  expect(await (await freshOrKept(request, cache, answering(portal))).text()).toContain('Log in');
  expect(cache.parts.size).toBe(0);
  await expect(
    freshOrKept(
      request,
      cache,
      answering(() => Promise.reject(new TypeError('cut'))),
    ),
  ).rejects.toThrow('cut');
});

test('all parts are kept, or none', async () => {
  const fetcher = (async (path: string) => (path === '/player/b' ? portal() : ours(path))) as unknown as typeof fetch;
  const cache = cacheOf();
  await expect(keepAll(cache, ['/player', '/player/b'], fetcher)).rejects.toThrow('/player/b did not come');
  expect(cache.parts.size).toBe(0);
  await keepAll(cache, ['/player', '/player/c'], fetcher);
  expect([...cache.parts.keys()]).toEqual(['/player', '/player/c']);
});
