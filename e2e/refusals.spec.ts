import { readFileSync } from 'node:fs';
import { createServer, request as httpRequest } from 'node:http';
import type { AddressInfo } from 'node:net';
import { basename, join } from 'node:path';
import { gzipSync } from 'node:zlib';
import type { APIRequestContext } from '@playwright/test';
import { emptyFile, hugePicture, lyingPng, pageWithScript, truncatedFilm } from './support/files';
import { startLanternpost } from './support/instance';
import { bindDatabase } from './support/plan';
import { IDA, openSession, pick, server, signIn } from './support/session';
import { expect, test } from './support/test';

/** What is wrong gets the right status and one sentence, is logged once, and leaves nothing behind. */
async function send(request: APIRequestContext, file: string, name = basename(file)) {
  const response = await request.post(server(`/api/uploads?name=${encodeURIComponent(name)}`), {
    data: readFileSync(file),
    headers: { 'content-type': 'application/octet-stream' },
  });
  return {
    status: response.status(),
    type: response.headers()['content-type'],
    body: (await response.json()) as { title: string },
  };
}

test.describe('uploads', () => {
  const refused: [string, () => Promise<string> | string, number, string, string?][] = [
    ['0 bytes', emptyFile, 422, 'This file is empty. Choose another.'],
    [
      'a web page with a script',
      pageWithScript,
      415,
      'This kind of file can’t be played. Use PNG, JPEG, WebP, AVIF, GIF, HEIC, TIFF, BMP or SVG pictures, MP4, MOV, MKV, WebM, AVI, WMV or MPEG videos, MP3, AAC, WAV, Ogg or FLAC sounds, or PDF.',
    ],
    [
      '../ in the name',
      lyingPng,
      422,
      'This file name is empty or contains a path. Rename the file, then upload it again.',
      '../../etc/passwd.png',
    ],
  ];
  for (const [what, file, status, sentence, name] of refused)
    test(what, async ({ page }) => {
      await openSession(page);
      const before = await (await page.request.get(server('/api/uploads'))).json();
      const logBefore = refusals();
      const answer = await send(page.request, await file(), name);
      expect([answer.status, answer.body.title]).toEqual([status, sentence]);
      expect(answer.type).toBe('application/problem+json');
      expect(await (await page.request.get(server('/api/uploads'))).json()).toEqual(before);
      await expect.poll(() => refusals() - logBefore).toBe(1);
    });

  // What only a closer look shows is found by the worker: the library's list tells it, until it is taken off.
  const failed: [string, () => Promise<string> | string, string][] = [
    ['a truncated film', truncatedFilm, 'This video is damaged or incomplete. Export it again, then upload it.'],
    [
      '20 000 × 20 000 pixels',
      hugePicture,
      'This picture has 20000 × 20000 pixels, more than any screen needs. Scale it to at most 100 megapixels.',
    ],
  ];
  for (const [what, file, sentence] of failed)
    test(what, async ({ page }) => {
      await openSession(page);
      expect((await send(page.request, await file())).status).toBe(202);
      await page.goto(server('/library'));
      const tray = page.getByTestId('uploads');
      const row = tray.getByRole('listitem').filter({ hasText: sentence });
      await expect(row).toBeVisible();
      await row.getByRole('button').click();
      await expect(row).toHaveCount(0);
    });
});

/** How many refused requests the server has logged. */
const refusals = () =>
  (
    readFileSync(join(process.env.LANTERNPOST_E2E_DATA ?? '', 'instance.log'), 'utf8').match(
      /"msg":"request refused"/g,
    ) ?? []
  ).length;

test('a player page reloaded behind something that answers in our place: the kept page is shown', async ({ page }) => {
  const upstream = new URL(server('/'));
  let answer: { status: number; body: string } | null = null;
  const between = createServer((request, response) => {
    if (answer) return void response.writeHead(answer.status, { 'content-type': 'text/html' }).end(answer.body);
    const { method, url, headers } = request;
    const passed = httpRequest(
      { host: upstream.hostname, port: upstream.port, method, path: url, headers },
      (theirs) => {
        response.writeHead(theirs.statusCode ?? 500, theirs.headers);
        theirs.pipe(response);
      },
    );
    passed.on('error', () => response.destroy());
    request.pipe(passed);
  });
  await new Promise<void>((done) => between.listen(0, '127.0.0.1', done));
  const { port } = between.address() as AddressInfo;
  await page.goto(`http://127.0.0.1:${port}/player`);
  await expect(page.locator('#code')).toHaveText(/^[A-Z]{4}-[A-Z]{4}$/);
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  const shown = () => page.evaluate(() => [document.title, document.getElementById('stage') !== null]);
  for (const other of [
    { status: 200, body: '<title>Log in</title><h1>Log in to this network</h1>' },
    { status: 502, body: '<title>Bad gateway</title>' },
    { status: 401, body: '<title>Who are you?</title>' },
  ]) {
    answer = other;
    await page.reload();
    expect(await shown()).toEqual(['Lanternpost player', true]);
  }
  answer = null;
  await page.reload();
  await expect(page.locator('#code')).toHaveText(/^[A-Z]{4}-[A-Z]{4}$/);
  await page.goto('about:blank');
  between.closeAllConnections();
  await new Promise((done) => between.close(done));
});

test('requests without a login, from other sites, or malformed', async ({ page, request }) => {
  const status = async (answer: ReturnType<APIRequestContext['get']>) => (await answer).status();
  for (const path of ['/api/uploads', '/api/statuses', '/api/lines', '/api/live', `/api/files/${'a'.repeat(64)}`])
    expect([path, await status(request.get(server(path)))]).toEqual([path, 401]);
  expect(await status(request.post(server('/api/uploads?name=a.png'), { data: 'x' }))).toBe(401);
  expect(await status(request.post(server('/api/screens/pair'), { data: [] }))).toBe(401);
  expect((await request.get(server('/library'), { maxRedirects: 0 })).headers().location).toBe('/sign-in');

  await signIn(page);
  const foreign = { origin: 'https://elsewhere.example' };
  expect(await status(page.request.post(server('/api/uploads?name=a.png'), { data: 'x', headers: foreign }))).toBe(403);
  expect(
    await status(
      page.request.post(server('/api/screens/pair'), {
        data: Buffer.from('{'),
        headers: { 'content-type': 'application/json' },
      }),
    ),
  ).toBe(400);
  expect(await status(page.request.post(server('/api/screens/pair'), { data: [{ screen: 'x' }] }))).toBe(422);
  expect(
    await (
      await page.request.post(server('/api/screens/pair'), { data: [{ screen: 'nowhere', code: 'BCDF-GHJK' }] })
    ).json(),
  ).toEqual([
    { screen: 'nowhere', code: 'BCDF-GHJK', error: 'Your network has no such screen. It may have been deleted.' },
  ]);
  expect(await status(page.request.get(server('/api/files/xyz')))).toBe(400);
  expect(await status(page.request.get(server(`/api/files/${'a'.repeat(64)}`)))).toBe(404);
  expect(await status(page.request.post(server('/api/uploads'), { data: 'x' }))).toBe(400);
  for (const origin of ['null', 'https://elsewhere.example']) {
    const headers = { origin, 'next-action': 'a'.repeat(42), 'content-type': 'text/plain' };
    expect(await status(page.request.post(server('/plan'), { data: '[]', headers }))).toBe(403);
  }
  expect(await status(page.request.get(server('/api/files/%E0%A4%A')))).toBe(400);
});

test('every page carries a strict policy, and the session is out of reach of scripts', async ({ page }) => {
  const response = await page.goto(server('/sign-in'));
  const headers = response?.headers() ?? {};
  expect(headers['content-security-policy']).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic'/);
  expect(headers['content-security-policy']).not.toContain("script-src 'self' 'unsafe-inline'");
  expect([headers['x-content-type-options'], headers['x-frame-options'], headers['x-powered-by']]).toEqual([
    'nosniff',
    'DENY',
    undefined,
  ]);
  expect((await page.request.get(server('/player'))).headers()['content-security-policy']).toContain(
    "default-src 'self'",
  );
  await signIn(page);
  const cookie = (await page.context().cookies()).find(({ name }) => name === 'lanternpost-session');
  expect(cookie).toMatchObject({ httpOnly: true, sameSite: 'Lax' });
});

test('the player is small: under 60 KB of script, gzipped, with the core', async ({ request }) => {
  const script = await (await request.get(server('/player/player.js'))).body();
  expect(gzipSync(script).length).toBeLessThan(60_000);
});

test('forms say what is missing, at the field', async ({ page }) => {
  await page.goto(server('/sign-in'));
  await page.getByRole('button', { name: 'Log in' }).click();
  await expect(page.getByText('Write an e-mail address such as ida@example.org.')).toBeVisible();
  await page.getByLabel('E-mail').fill(IDA.email);
  await page.getByLabel('Password').fill('not the password');
  await page.getByRole('button', { name: 'Log in' }).click();
  await expect(page.getByText('E-mail and password don’t match. Check both and try again.')).toBeVisible();

  await signIn(page, '/plan');
  await page.getByRole('button', { name: 'New booking' }).click();
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Where').fill('quay and');
  await sheet.getByLabel('When').fill('weekdays, sometimes');
  await expect(sheet.getByText('“sometimes” isn’t understood')).toBeVisible();
  await sheet.getByLabel('When').fill('weekdays');
  await sheet.getByRole('button', { name: 'Exact dates, days, times' }).click();
  await sheet.getByRole('button', { name: 'Add a window' }).click();
  await sheet.getByLabel('Window 1 starts').fill('25:00');
  await sheet.getByLabel('Window 1 ends').fill('10:00');
  await sheet.getByRole('button', { name: 'Book it' }).click();
  for (const sentence of [
    'Write a name.',
    'Choose what is shown.',
    'Something is missing at the end. Add a tag.',
    'Write when it starts, e.g. 05:30, 5:30 pm, noon',
  ])
    await expect(sheet.getByText(sentence).first()).toBeVisible();
  // What only the server knows is said at its field too, and the focus goes there.
  await sheet.getByLabel('Name').fill('Morning sailings');
  await pick(sheet.getByLabel('What'), 'playlist:crew', 'Crew notices');
  await sheet.getByLabel('Where').fill('quay');
  await sheet.getByLabel('Window 1 starts').fill('05:30');
  await sheet.getByRole('button', { name: 'Book it' }).click();
  await expect(sheet.getByText('This name is taken. Choose another.')).toBeInViewport();
  await expect(sheet.getByLabel('Name')).toBeFocused();
  await page.keyboard.press('Escape');
  await page.goto(server('/playlists/nowhere'));
  await expect(page.getByRole('heading', { name: 'No such playlist' })).toBeVisible();
});

test('another network sees none of it, by any route', async ({ browser }) => {
  bindDatabase();
  const { closeDatabase, database, rows } = await import('@/database');
  database();
  const { addPerson } = await import('@/services/people');
  const stranger = { name: 'Sten Ravn', email: 'sten@other.example', password: 'another network' };
  const { createNetwork } = await import('@/services/plan');
  await addPerson(await createNetwork({ name: 'Other Line', slug: 'other-line' }), stranger);
  const [{ file } = { file: '' }] = await rows<{ file: string }>(
    `SELECT document->>'sha256' AS file FROM plan_objects WHERE kind = 'media' AND slug = 'line-flag'`,
  );
  expect(file).toMatch(/^[0-9a-f]{64}$/);
  await closeDatabase();

  const page = await browser.newPage();
  await signIn(page, '/', stranger);
  await expect(page.getByRole('heading', { name: 'No screens yet' })).toBeVisible();
  for (const path of ['/api/statuses', '/api/lines', '/api/uploads'])
    expect(await (await page.request.get(server(path))).json()).toEqual([]);
  expect((await page.request.get(server(`/api/files/${file}`))).status()).toBe(404);
  expect(
    await (
      await page.request.post(server('/api/screens/pair'), { data: [{ screen: 'ternholm-hall', code: 'BCDF-GHJK' }] })
    ).json(),
  ).toMatchObject([{ error: expect.stringContaining('no such screen') }]);
  await page.goto(server('/playlists/house'));
  await expect(page.getByRole('heading', { name: 'No such playlist' })).toBeVisible();
  await page.goto(server('/screens?screen=ternholm-hall'));
  await expect(page.getByRole('heading', { name: 'No sites yet' })).toBeVisible();
  await page.close();
});

test('without demo data the first start asks for a first person, on a page that works only then', async ({
  browser,
}) => {
  const { url, stop } = await startLanternpost('e2e-empty', 4390, false);
  const page = await browser.newPage();
  try {
    await page.goto(url);
    await expect(page).toHaveURL(`${url}/first-person`);
    await page.getByLabel('Name of the network').fill('Kelpie Ferries');
    await page.getByLabel('Your name').fill('Una Berg');
    await page.getByLabel('E-mail').fill('una@kelpie.example');
    await page.getByLabel('Password').fill('short');
    await page.getByRole('button', { name: 'Create network' }).click();
    await expect(page.getByText('A password has at least 10 characters.')).toBeVisible();
    await page.getByLabel('Password').fill('long enough by far');
    await page.getByRole('button', { name: 'Create network' }).click();
    await expect(page.getByRole('link', { name: 'Kelpie Ferries' })).toBeVisible();
    await expect(page.getByRole('heading', { name: 'No screens yet' })).toBeVisible();
    for (const [path, title] of [
      ['/library', 'The library is empty'],
      ['/playlists', 'No playlists yet'],
      ['/plan', 'Nothing is booked yet'],
      ['/screens', 'No sites yet'],
    ] as const) {
      await page.goto(url + path);
      await expect(page.getByRole('heading', { name: title })).toBeVisible();
    }
    await page.getByRole('button', { name: 'Una' }).click();
    await page.getByRole('menuitem', { name: 'Log out' }).click();
    await expect(page).toHaveURL(`${url}/sign-in`);
    await page.goto(`${url}/first-person`);
    await expect(page).toHaveURL(`${url}/sign-in`);
  } finally {
    await page.close();
    await stop();
  }
});
