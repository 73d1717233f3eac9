import { PLAYER_PAGE_HEADER } from '@/protocol/page';

/** The player's page as its service worker keeps it, so that it starts without a network, and behind whatever answers in our place. */

const isOurs = (response: Response): boolean =>
  response.ok && !response.redirected && response.headers.has(PLAYER_PAGE_HEADER);

/** How long the network may take where something is kept. */
const NETWORK_FIRST_MS = 3000;

/** Where parts of the page are kept: the part of the browser's Cache that is needed. */
export interface PageCache {
  match(request: Request | string, options?: { ignoreSearch: boolean }): Promise<Response | undefined>;
  put(request: Request | string, response: Response): Promise<void>;
}

/** Keeps all parts of the page. Throws where one of them is not ours: nothing of another's is ever kept. */
export async function keepAll(cache: PageCache, paths: readonly string[], fetcher: typeof fetch): Promise<void> {
  const parts = await Promise.all(
    paths.map(async (path) => ({ path, response: await fetcher(path, { cache: 'no-store' }) })),
  );
  const other = parts.find(({ response }) => !isOurs(response));
  if (other) throw new Error(`${other.path} did not come from the server. The page will be stored at the next start.`);
  for (const { path, response } of parts) await cache.put(path, response);
}

/** The newest part of the page where our server gives it in time; else the one that is kept, where there is one. */
export async function freshOrKept(
  request: Request,
  cache: PageCache,
  fetcher: typeof fetch,
  waitMs = NETWORK_FIRST_MS,
): Promise<Response> {
  const kept = await cache.match(request, { ignoreSearch: true });
  const fresh = fetcher(request).then(async (response) => {
    if (!isOurs(response)) return kept ?? response;
    // Without its query, in which may be an enrolment key.
    await cache.put(new URL(request.url).pathname, response.clone());
    return response;
  });
  if (!kept) return fresh;
  const late = new Promise<Response>((resolve) => setTimeout(() => resolve(kept), waitMs));
  return Promise.race([fresh.catch(() => kept), late]);
}
