import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import type { Asset } from '@/core/playing';
import { BrowserStore } from './browser-store';
import { StorageFull } from '../session/store';

const asset = (sha256: string, bytes: number): Asset => ({
  ...{ kind: 'image', sha256, bytes, type: 'image/png', width: 1, height: 1 },
});
const bytes = (...values: number[]) => Uint8Array.from(values);

/** Cache Storage as the store uses it: whole responses by address. */
class TestCache {
  readonly held = new Map<string, Response>();
  full = false;
  async put(url: string, response: Response): Promise<void> {
    const body = await response.arrayBuffer();
    if (this.full) throw new DOMException('no room', 'QuotaExceededError');
    this.held.set(url, new Response(body, { headers: response.headers }));
  }
  match = (url: string) => Promise.resolve(this.held.get(url)?.clone());
  delete = (url: string) => Promise.resolve(this.held.delete(url));
  keys = () => Promise.resolve([...this.held.keys()].map((url) => ({ url: `http://player.test${url}` })));
}

let cache: TestCache;
beforeEach(() => {
  globalThis.indexedDB = new IDBFactory();
  cache = new TestCache();
  Object.assign(globalThis, { self: globalThis, caches: { open: () => Promise.resolve(cache) } });
});

const all = async (pieces: AsyncIterable<Uint8Array>) => {
  const found: number[] = [];
  for await (const piece of pieces) found.push(...piece);
  return found;
};

test('a page that has no lasting storage says what it needs', async () => {
  Reflect.deleteProperty(globalThis, 'caches');
  await expect(BrowserStore.open()).rejects.toThrow('This page needs HTTPS');
});

test('what is kept is there again after a restart; what was not given stays', async () => {
  const first = await BrowserStore.open();
  expect(await first.load()).toEqual({
    token: null,
    was: null,
    screen: null,
    program: null,
    coming: [],
    clockOffsetMs: 0,
    commands: [],
    firings: [],
  });
  await first.save({ token: 'secret', clockOffsetMs: -40 });
  await first.save({ program: { hash: 'h', edition: 3, text: '{}' } });
  const again = await BrowserStore.open();
  expect(await again.load()).toEqual({
    token: 'secret',
    was: null,
    screen: null,
    coming: [],
    program: { hash: 'h', edition: 3, text: '{}' },
    clockOffsetMs: -40,
    commands: [],
    firings: [],
  });
  await again.save({ token: null });
  expect((await again.load()).token).toBeNull();
});

test('a file comes in pieces, in order, counts once it is complete, and its pieces are given up then', async () => {
  const store = await BrowserStore.open();
  for (const piece of [bytes(1, 2), bytes(3), bytes(4, 5, 6)]) await store.append('film', piece);
  await store.append('other', bytes(9));
  expect(await all(store.pieces('film'))).toEqual([1, 2, 3, 4, 5, 6]);
  expect(await store.open('film')).toBeNull();
  expect([...(await store.files())]).toEqual([
    ['film', { bytes: 6, whole: false }],
    ['other', { bytes: 1, whole: false }],
  ]);
  await store.complete(asset('film', 6));
  const blob = await store.open('film');
  expect([...new Uint8Array((await blob?.arrayBuffer()) ?? new ArrayBuffer(0))]).toEqual([1, 2, 3, 4, 5, 6]);
  expect(blob?.type).toBe('image/png');
  expect(cache.held.get('/player/assets/film')?.headers.get('content-length')).toBe('6');
  expect(new Map(await store.files())).toEqual(
    new Map([
      ['film', { bytes: 0, whole: true }],
      ['other', { bytes: 1, whole: false }],
    ]),
  );
  expect(await all(store.pieces('film'))).toEqual([]);
});

test('more than ten pieces stay in order', async () => {
  const store = await BrowserStore.open();
  const many = Array.from({ length: 12 }, (_, n) => n);
  for (const n of many) await store.append('film', bytes(n));
  expect(await all(store.pieces('film'))).toEqual(many);
});

test('a file that is thrown away is gone, whole or in pieces, and no other', async () => {
  const store = await BrowserStore.open();
  await store.append('whole', bytes(1));
  await store.complete(asset('whole', 1));
  await store.append('part', bytes(2));
  await store.append('kept', bytes(3));
  await store.discard('whole');
  await store.discard('part');
  expect([...(await store.files()).keys()]).toEqual(['kept']);
  expect(await store.open('whole')).toBeNull();
});

test('where there is no room, that is what is said, and the pieces stay; any other fault is told as it is', async () => {
  const store = await BrowserStore.open();
  await store.append('film', bytes(1));
  cache.full = true;
  await expect(store.complete(asset('film', 1))).rejects.toThrow(StorageFull);
  expect(await all(store.pieces('film'))).toEqual([1]);
  await expect(store.complete(asset('film', 1))).rejects.toThrow(
    'Storage is full. Files that no program needs are removed, then it continues.',
  );
  // Another fault of the browser's is told as it is: clearing storage would not mend it.
  cache.put = () => Promise.reject(new DOMException('the page is gone', 'InvalidStateError'));
  await expect(store.complete(asset('film', 1))).rejects.toThrow('the page is gone');
  cache.put = () => Promise.reject(Object.assign(new Error('not of the browser'), { name: 'QuotaExceededError' }));
  await expect(store.complete(asset('film', 1))).rejects.toThrow('not of the browser');
  cache.put = () => Promise.reject(new TypeError('broken'));
  await expect(store.complete(asset('film', 1))).rejects.toThrow('broken');
});
