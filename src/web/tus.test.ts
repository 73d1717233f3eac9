import { Readable } from 'node:stream';
import type { Actor } from '@/services/people';
import { draftPlan } from '@/services/plan';
import { processUpload, uploads, writePart } from '@/services/library';
import { newNetwork, useDatabase } from '@/services/tests/database';
import { picture } from '@/services/tests/files';
import { answerTus } from './tus';

useDatabase();

/** The protocol as its specification has it: tus 1.0.0, https://tus.io/protocols/resumable-upload (core, creation, termination). */

const SERVER = 'http://127.0.0.1:4170';

function ask(actor: Actor, method: string, path: string, headers: Record<string, string> = {}, body?: Buffer) {
  const request = new Request(`${SERVER}${path}`, {
    method,
    headers: { 'tus-resumable': '1.0.0', ...headers },
    ...(body ? { body: new Uint8Array(body), duplex: 'half' } : {}),
  });
  return answerTus(request, actor);
}

const meta = (values: Record<string, string>) =>
  Object.entries(values)
    .map(([key, value]) => `${key} ${Buffer.from(value).toString('base64')}`)
    .join();

async function begin(actor: Actor, name: string, bytes: number): Promise<string> {
  const answer = await ask(actor, 'POST', '/api/uploads', {
    'upload-length': String(bytes),
    'upload-metadata': meta({ filename: name }),
  });
  expect(answer.status).toBe(201);
  const location = answer.headers.get('location') ?? '';
  expect(location).toMatch(/^\/api\/uploads\/[0-9a-f-]{36}$/);
  return location;
}

const patch = (actor: Actor, path: string, offset: number, body: Buffer) =>
  ask(
    actor,
    'PATCH',
    path,
    { 'upload-offset': String(offset), 'content-type': 'application/offset+octet-stream' },
    body,
  );
const head = (actor: Actor, path: string) => ask(actor, 'HEAD', path);

test('a file is begun, asked about, gone on with, and told about when it is whole', async () => {
  const actor = await newNetwork();
  const bytes = await picture(60, 40);
  const path = await begin(actor, 'Räng & Øy.jpg', bytes.length);
  const asked = await head(actor, path);
  expect([asked.status, asked.headers.get('upload-offset'), asked.headers.get('upload-length')]).toEqual([
    200,
    '0',
    String(bytes.length),
  ]);
  expect(asked.headers.get('cache-control')).toBe('no-store');
  const first = await patch(actor, path, 0, bytes.subarray(0, 200));
  expect([first.status, first.headers.get('upload-offset')]).toEqual([204, '200']);
  expect((await head(actor, path)).headers.get('upload-offset')).toBe('200');
  const last = await patch(actor, path, 200, bytes.subarray(200));
  expect([last.status, last.headers.get('upload-offset')]).toEqual([200, String(bytes.length)]);
  const told = (await last.json()) as { upload: { id: string; name: string } };
  expect(told.upload.name).toBe('Räng & Øy');
  await processUpload(told.upload.id);
  expect((await draftPlan(actor)).plan.media).toMatchObject([{ name: 'Räng & Øy', width: 60, height: 40 }]);
});

test('a small file comes with its beginning: one request; what is cut off on the way is gone on with', async () => {
  const actor = await newNetwork();
  const bytes = await picture(62, 40);
  const withBytes = (body: Buffer) =>
    ask(
      actor,
      'POST',
      '/api/uploads',
      {
        'upload-length': String(bytes.length),
        'upload-metadata': meta({ filename: 'Small.jpg' }),
        'content-type': 'application/offset+octet-stream',
      },
      body,
    );
  const half = await withBytes(bytes.subarray(0, 100));
  expect([half.status, half.headers.get('upload-offset')]).toEqual([201, '100']);
  const whole = await withBytes(bytes);
  expect([whole.status, whole.headers.get('upload-offset')]).toEqual([201, String(bytes.length)]);
  expect(whole.headers.get('location')).toMatch(/^\/api\/uploads\/[0-9a-f-]{36}$/);
  // The half-sent file has the name already.
  expect(await whole.json()).toMatchObject({ upload: { name: 'Small.jpg' } });
  // What lies about of the first is the same file.
  const rest = await patch(actor, half.headers.get('location') ?? '', 100, bytes.subarray(100));
  expect([rest.status, await rest.json()]).toMatchObject([200, { upload: { name: 'Small' } }]);
  const none = await ask(
    actor,
    'POST',
    '/api/uploads',
    {
      'upload-length': '4',
      'upload-metadata': meta({ filename: 'x.txt' }),
      'content-type': 'application/offset+octet-stream',
    },
    Buffer.from('text'),
  );
  expect(none.status).toBe(415);
});

test('a part from another place than where the file stands is a conflict, and nothing is written', async () => {
  const actor = await newNetwork();
  const path = await begin(actor, 'a.jpg', 1000);
  await patch(actor, path, 0, Buffer.alloc(100));
  expect((await patch(actor, path, 50, Buffer.alloc(100))).status).toBe(409);
  expect((await patch(actor, path, 0, Buffer.alloc(100))).status).toBe(409);
  expect((await head(actor, path)).headers.get('upload-offset')).toBe('100');
  // More than was told is no part of it.
  expect((await patch(actor, path, 100, Buffer.alloc(2000))).status).toBe(413);
});

test('a file whose last answer was lost is in when it is asked about', async () => {
  const actor = await newNetwork();
  const bytes = await picture(61, 40);
  const path = await begin(actor, 'Lost answer.jpg', bytes.length);
  const id = path.split('/').at(-1) ?? '';
  await writePart(id, 0, Readable.from([bytes]));
  for (const _again of [1, 2])
    expect((await head(actor, path)).headers.get('upload-offset')).toBe(String(bytes.length));
  expect(await uploads(actor)).toMatchObject([{ id, state: 'waiting' }]);
});

test('a file that is ended is gone, and so is one of another network, or that never was', async () => {
  const [actor, other] = [await newNetwork(), await newNetwork()];
  const path = await begin(actor, 'a.jpg', 1000);
  expect((await head(other, path)).status).toBe(404);
  expect((await patch(other, path, 0, Buffer.alloc(10))).status).toBe(404);
  await ask(other, 'DELETE', path);
  expect((await head(actor, path)).status).toBe(200);
  expect((await ask(actor, 'DELETE', path)).status).toBe(204);
  expect((await head(actor, path)).status).toBe(404);
  for (const id of ['00000000-0000-7000-8000-000000000000', 'x', '..%2F..%2Fetc%2Fpasswd', '%00'])
    expect([id, (await head(actor, `/api/uploads/${id}`)).status]).toEqual([id, 404]);
});

test.each([
  ['no name', { 'upload-length': '10' }, 422],
  ['an empty file', { 'upload-length': '0', 'upload-metadata': meta({ filename: 'a.jpg' }) }, 422],
  ['a path', { 'upload-length': '10', 'upload-metadata': meta({ filename: '../a.jpg' }) }, 422],
  ['a batch that is none', { 'upload-length': '10', 'upload-metadata': meta({ filename: 'a.jpg', batch: 'x' }) }, 422],
  [
    'more than a file may have',
    { 'upload-length': '9000000000000', 'upload-metadata': meta({ filename: 'a.jpg' }) },
    413,
  ],
])('%s is refused with a sentence', async (_, headers, status) => {
  const actor = await newNetwork();
  const answer = await ask(actor, 'POST', '/api/uploads', headers);
  expect(answer.status).toBe(status);
  expect((await answer.json()) as object).toMatchObject({
    status,
    title: expect.stringMatching(/^[A-Z].+\.$/) as string,
  });
});

test('what is no picture or film is told so with the last part', async () => {
  const actor = await newNetwork();
  const text = Buffer.from('just words, whatever it is called');
  const path = await begin(actor, 'a.png', text.length);
  const answer = await patch(actor, path, 0, text);
  expect(answer.status).toBe(415);
  expect((await answer.json()) as object).toMatchObject({
    title: expect.stringContaining('can’t be played') as string,
  });
  expect((await head(actor, path)).status).toBe(404);
});
