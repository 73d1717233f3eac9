import { createHash } from 'node:crypto';
import { FleetStore } from '@/fleet/store';
import type { ProtocolClient } from '@/protocol/client';
import { DamagedFile, fetchFile } from './fetch-file';

const FILE = Uint8Array.from({ length: 100 }, (_, i) => i);
const SHA = createHash('sha256').update(FILE).digest('hex');
const ASSET = { kind: 'image', sha256: SHA, bytes: FILE.length, type: 'image/png', width: 1, height: 1 } as const;

/** A server that sends a file in chunks from where it is asked, or from the beginning where it does not resume. */
function serving(chunk: number, { bytes = FILE, resumes = true, onChunk = (_sent: number) => {} } = {}) {
  const asked: number[] = [];
  const client = {
    asset: async (_sha256: string, from: number) => {
      asked.push(from);
      let at = resumes ? from : 0;
      const body = new ReadableStream<Uint8Array>({
        pull(controller) {
          if (at >= bytes.length) return controller.close();
          controller.enqueue(bytes.slice(at, at + chunk));
          at += chunk;
          onChunk(at);
        },
      });
      return { body, resumed: resumes && from > 0 };
    },
  } as unknown as ProtocolClient;
  return { client, asked };
}

/** A store that tells in which pieces it was written. */
class Told extends FleetStore {
  readonly written: number[] = [];
  override async append(sha256: string, bytes: Uint8Array): Promise<void> {
    this.written.push(bytes.byteLength);
    return super.append(sha256, bytes);
  }
}

const fetching = (
  client: ProtocolClient,
  pieceBytes: number,
  store = new Told(null),
  signal = new AbortController().signal,
) => {
  const heard: number[] = [];
  const done = fetchFile(ASSET, { client, store, signal, pieceBytes, onBytes: (bytes) => void heard.push(bytes) });
  return { store, heard, done };
};
const isWhole = async (store: FleetStore) => (await store.files()).get(SHA)?.whole === true;

test.each([
  // Chunks are gathered until a piece is large enough, an exact one too; what is left at the end is a piece of its own.
  [10, 30, [30, 30, 30, 10]],
  [10, 25, [30, 30, 30, 10]],
  [50, 50, [50, 50]],
  [7, 1000, [100]],
  [40, 1, [40, 40, 20]],
])('chunks of %d bytes are kept in pieces of about %d', async (chunk, pieceBytes, written) => {
  const { store, heard, done } = fetching(serving(chunk).client, pieceBytes);
  await done;
  expect(store.written).toEqual(written);
  // Each is told with what there is by then, the nothing at the beginning first.
  expect(heard).toEqual(written.reduce<number[]>((sums, one) => [...sums, (sums.at(-1) ?? 0) + one], [0]));
  expect(await isWhole(store)).toBe(true);
});

test('what is here already is not asked for again', async () => {
  const store = new Told(null);
  await store.append(SHA, FILE.slice(0, 60));
  const { client, asked } = serving(20);
  const { heard, done } = fetching(client, 20, store);
  await done;
  expect(asked).toEqual([60]);
  expect(heard).toEqual([60, 80, 100]);
  expect(await isWhole(store)).toBe(true);
});

test('a server that begins anew is taken from the beginning', async () => {
  const store = new Told(null);
  await store.append(SHA, FILE.slice(0, 60));
  const { done } = fetching(serving(50, { resumes: false }).client, 50, store);
  await done;
  expect(await isWhole(store)).toBe(true);
  expect(store.written).toEqual([60, 50, 50]);
});

test('all of it here already is looked through, and whole', async () => {
  const store = new Told(null);
  await store.append(SHA, FILE);
  const { client, asked } = serving(20);
  await fetching(client, 20, store).done;
  expect(asked).toEqual([]);
  expect(await isWhole(store)).toBe(true);
});

test.each([
  ['other bytes', FILE.map((byte) => byte ^ 1)],
  ['fewer', FILE.slice(0, 90)],
  ['more', Uint8Array.from([...FILE, 1, 2, 3])],
])('%s are thrown away, and told', async (_, bytes) => {
  const { store, heard, done } = fetching(serving(30, { bytes }).client, 30);
  await expect(done).rejects.toThrow(DamagedFile);
  expect((await store.files()).has(SHA)).toBe(false);
  expect(heard.at(-1)).toBe(0);
});

test('broken off, it keeps what it has, and goes on from there', async () => {
  const stop = new AbortController();
  const { client } = serving(20, { onChunk: (sent) => sent >= 60 && stop.abort() });
  const { store, done } = fetching(client, 20, new Told(null), stop.signal);
  await done;
  const held = (await store.files()).get(SHA);
  expect(held?.whole).toBe(false);
  expect(held?.bytes).toBeGreaterThanOrEqual(20);
  expect(held?.bytes).toBeLessThan(100);
  const again = serving(20);
  await fetching(again.client, 20, store).done;
  expect(again.asked).toEqual([held?.bytes]);
  expect(await isWhole(store)).toBe(true);
});
