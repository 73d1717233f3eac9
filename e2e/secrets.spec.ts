import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { bindDatabase } from './support/plan';
import { secret, secretsInLogs } from './support/secrets';
import { server, signIn } from './support/session';
import { expect, test } from './support/test';

/** Every kind of secret is made, used, used wrongly, and sent where it does not belong: no log holds one of them. */
test('no log holds a secret: passwords, sessions, links, feeds, players', async ({ page, request }) => {
  await signIn(page, '/people');
  await page.getByLabel('New person’s name').fill('Una');
  await page.getByLabel('Their e-mail').fill('una@ternholm.example');
  await page.getByLabel('Role', { exact: true }).selectOption('Planner with publishing');
  await page.getByRole('button', { name: 'Create invitation link' }).click();
  const link = await page.getByLabel('Link for Una', { exact: true }).inputValue();
  const token = secret(link.split('#')[1] ?? '');
  await page.goto('about:blank');
  await page.goto(link);
  const password = secret('oars under the jetty');
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Join' }).click();
  await expect(page.getByTestId('docket')).toBeVisible();

  await page.goto(server('/plan'));
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Feeds for calendar programs' }).click();
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Name of the feed').fill('All');
  await sheet.getByLabel('Where').fill('all');
  await sheet.getByRole('button', { name: 'Open the feed' }).click();
  const address = await sheet.getByLabel('Address of the feed').inputValue();
  const feed = secret(/feeds\/([\w-]+)\.ics/.exec(address)?.[1] ?? '');
  expect((await request.get(address)).status()).toBe(200);
  await sheet.getByRole('button', { name: /^Close the feed/ }).click();
  await expect.poll(async () => (await request.get(address)).status()).toBe(404);

  const api = (path: string) => server(`/api/player/v1${path}`);
  const pairing = (await (await request.post(api('/pairing'))).json()) as { device_code: string; user_code: string };
  const device = secret(pairing.device_code);
  const pair = await page.request.post(server('/api/screens/pair'), {
    data: [{ screen: 'ternholm-hall', code: pairing.user_code }],
  });
  expect(pair.status()).toBe(200);
  const collected = (await (await request.post(api('/pairing/token'), { data: { device_code: device } })).json()) as {
    access_token: string;
  };
  const player = secret(collected.access_token);
  expect(player.length).toBeGreaterThan(20);

  // Where they do not belong, and with what is wrong.
  const wrong = secret('a password that is wrong');
  await request.post(server('/api/session'), { data: { email: 'una@ternholm.example', password: wrong } });
  await request.post(server('/api/session'), { data: `{"email":"una","password":"${wrong}` });
  await request.post(server('/api/session'), { data: { email: password, password } });
  await request.post(api('/heartbeat'), { headers: { authorization: `Bearer ${player}` }, data: { software: player } });
  await request.post(api('/heartbeat'), { headers: { authorization: `Bearer ${token}` }, data: '{' });
  await request.get(api('/target'), { headers: { authorization: `Bearer ${feed}` } });
  for (const path of [
    `/api/feeds/${token}.ics`,
    `/api/files/${'f'.repeat(64)}`,
    `/api/media/${encodeURIComponent(player)}`,
  ])
    await page.request.get(server(path));
  await page.request.post(server(`/api/uploads?name=${encodeURIComponent('Text.png')}`), { data: password });
  bindDatabase();
  const { database, rows } = await import('@/database');
  database();
  await rows('SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE pid <> pg_backend_pid()').catch(() => []);
  for (let i = 0; i < 3; i++)
    await request.post(server('/api/session'), { data: { email: 'una@ternholm.example', password } });
  await request.post(api('/pairing/token'), { data: { device_code: device } });
  await page.goto(server('/'));
  await expect(page.getByTestId('docket')).toBeVisible();

  const data = process.env.LANTERNPOST_E2E_DATA ?? '';
  const { known, found } = secretsInLogs(data);
  expect(known).toBeGreaterThan(7);
  expect(found).toEqual([]);
  // The search finds what is there.
  const planted = secret('planted in the log by this test');
  writeFileSync(join(data, 'instance.log'), planted, { flag: 'a' });
  expect(secretsInLogs(data).found).toEqual([planted]);
  writeFileSync(join(data, 'instance.log'), '');
});
