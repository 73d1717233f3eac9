import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { createServer, request } from 'node:http';
import type { AddressInfo } from 'node:net';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import sharp from 'sharp';
import { startLanternpost } from '../e2e/support/instance';
import { FORMAT } from '@/core/plan';
import { PERMISSIONS } from '@/core/roles';
import { closeDatabase, rows } from '@/database';
import { DEMO_PEOPLE } from '@/demo';
import { findInLibrary, libraryFacets } from '@/services/library';
import { draw } from '@/services/library/studio';
import { createNetwork } from '@/services/plan';
import { median, print, timed } from './figure';
import { bind, launch, signedIn } from './instance';

/** The library's figures: files in, small pictures, and finding one among many. */
export async function libraryBench(): Promise<void> {
  const instance = await startLanternpost('bench-library', 4430, true);
  try {
    bind(instance);
    await searches();
    await uploads(instance.url);
  } finally {
    await closeDatabase();
    await instance.stop();
  }
  await thumbnails();
}

const FILES = 50_000;
const SEARCHES = ['', 'pier', 'p', '4711', 'winter and not t7', '192x384', 'ferry 123 winter', 'kind:video'];
const ROUNDS = 9;

/** A page of what is found and what it may be narrowed to; the worst of all searches. */
async function searches(): Promise<void> {
  const networkId = await createNetwork({ name: 'Large', slug: 'large' });
  await rows(
    `INSERT INTO plan_objects (id, network_id, kind, slug, name, document, format)
     SELECT gen_random_uuid(), $1, 'media', id, name, jsonb_build_object('id', id, 'name', name, 'kind', CASE WHEN i % 5 = 0 THEN 'video' ELSE 'image' END,
       'width', CASE WHEN i = 777 THEN 384 ELSE 1920 END, 'height', CASE WHEN i = 777 THEN 192 ELSE 1080 END, 'bytes', 1, 'durationMs', 5000,
       'added', '2026-01-01T00:00:00Z', 'tags', jsonb_build_array('t' || i % 200, CASE WHEN i % 3 = 0 THEN 'winter' ELSE 'summer' END)), $2
     FROM (SELECT i, 'f' || i AS id, 'Ferry ' || i * 7919 % 50021 || ' pier ' || i AS name FROM generate_series(1, ${FILES}) AS i) AS made`,
    [networkId, FORMAT],
  );
  await rows('ANALYZE');
  const actor = { networkId, personId: null, name: 'bench', may: PERMISSIONS };
  const bare = await each(() => rows('SELECT count(*) FROM media_index WHERE network_id = $1', [networkId]));
  const filters = {
    unused: false,
    kind: null,
    audible: false,
    ending: false,
    archived: false,
    among: null,
    small: [] as string[],
  };
  for (const [bench, ask] of [
    ['library/page-of-50000', (search: string) => findInLibrary(actor, { search, ...filters, from: 0, count: 60 })],
    ['library/facets-of-50000', (search: string) => libraryFacets(actor, { search, ...filters })],
  ] as const) {
    const taken: number[] = [];
    for (const search of SEARCHES) taken.push(await each(() => ask(search)));
    const worst = Math.max(...taken);
    print({
      ...{ bench, value: worst * 1000, unit: 'ms' },
      reference: { what: 'counting the same rows', value: bare * 1000 },
      ...{ goal: 'value < 100, the worst of eight searches', met: worst < 0.1 },
    });
  }
}

async function each(work: () => Promise<unknown>): Promise<number> {
  const taken: number[] = [];
  for (let i = 0; i < ROUNDS; i++) taken.push(await timed(work));
  return median(taken);
}

const UPLOADED = 512 * 2 ** 20;

/** Sends bytes over loopback. Resolves with the answer's status. */
function send(url: string, method: string, headers: Record<string, string>, bytes: number): Promise<number> {
  return new Promise((done, failed) => {
    const sending = request(url, { method, headers: { ...headers, 'content-length': String(bytes) } }, (response) => {
      response.resume();
      response.once('end', () => done(response.statusCode ?? 0));
    });
    sending.once('error', failed);
    const piece = Buffer.alloc(2 ** 20, 7);
    void pipeline(function* () {
      for (let sent = 0; sent < bytes; sent += piece.length) yield piece.subarray(0, bytes - sent);
    }, sending).catch(failed);
  });
}

/** Half a gigabyte in one part, hashed as it comes; beside a bare server that writes the same bytes to the same disk. */
async function uploads(url: string): Promise<void> {
  const browser = await launch();
  const page = await signedIn(browser, url, DEMO_PEOPLE[0]);
  const cookie = (await page.context().cookies()).map(({ name, value }) => `${name}=${value}`).join('; ');
  await browser.close();
  const folder = await mkdtemp(join(tmpdir(), 'lanternpost-bench-'));
  const bareServer = createServer((incoming, response) => {
    void pipeline(incoming, createWriteStream(join(folder, 'bare'))).then(() => response.end());
  });
  await new Promise<void>((listens) => bareServer.listen(0, '127.0.0.1', listens));
  const bareUrl = `http://127.0.0.1:${(bareServer.address() as AddressInfo).port}`;
  const headers = { cookie, 'tus-resumable': '1.0.0' };
  const [own, bare]: [number[], number[]] = [[], []];
  for (let round = 0; round < 3; round++) {
    bare.push(await timed(() => send(bareUrl, 'PUT', {}, UPLOADED)));
    const begun = await fetch(`${url}/api/uploads`, {
      method: 'POST',
      // A byte more than is sent: what becomes of a whole file is another figure.
      headers: {
        ...headers,
        'upload-length': String(UPLOADED + 1),
        'upload-metadata': `filename ${btoa('bench.mp4')}`,
      },
    });
    const place = url + (begun.headers.get('location') ?? '');
    const part = { ...headers, 'content-type': 'application/offset+octet-stream', 'upload-offset': '0' };
    own.push(await timed(() => send(place, 'PATCH', part, UPLOADED)));
    await fetch(place, { method: 'DELETE', headers });
  }
  bareServer.close();
  await rm(folder, { recursive: true });
  const [value, reference] = [UPLOADED / 1e6 / median(own), UPLOADED / 1e6 / median(bare)];
  print({
    ...{ bench: 'library/upload', value, unit: 'MB/s' },
    reference: { what: 'a bare Node server that writes the same bytes', value: reference },
    ...{ goal: '0.6 of the reference', met: value >= 0.6 * reference },
  });
}

const PICTURES = 60;

/** Small pictures of photographs in the processes that draw, as many at once as the worker does; beside sharp alone in this one. */
async function thumbnails(): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), 'lanternpost-bench-'));
  const source = join(folder, 'photo.jpg');
  const noise = { type: 'gaussian', mean: 128, sigma: 30 } as const;
  await sharp({ create: { width: 3000, height: 2000, channels: 3, background: '#888', noise } })
    .jpeg({ quality: 90 })
    .toFile(source);
  const lanes = Math.min(2, availableParallelism());
  const all = (work: (target: string) => Promise<unknown>) => async () => {
    await Promise.all(
      Array.from({ length: lanes }, async (_, lane) => {
        for (let i = lane; i < PICTURES; i += lanes) await work(join(folder, `${i}.jpg`));
      }),
    );
  };
  sharp.concurrency(1);
  const alone = all((target) =>
    sharp(source)
      .rotate()
      .resize(640, 640, { fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#1B2330' })
      .jpeg({ quality: 82, mozjpeg: true })
      .toFile(target),
  );
  const beside = all((target) => draw('thumbnail', source, target));
  await beside();
  const [own, reference]: [number[], number[]] = [[], []];
  for (let round = 0; round < 3; round++) {
    reference.push(PICTURES / (await timed(alone)));
    own.push(PICTURES / (await timed(beside)));
  }
  await rm(folder, { recursive: true });
  print({
    ...{ bench: 'library/thumbnails', value: median(own), unit: 'pictures/s' },
    reference: { what: 'sharp alone, as many at once', value: median(reference) },
    ...{ goal: '0.7 of the reference', met: median(own) >= 0.7 * median(reference) },
  });
}
