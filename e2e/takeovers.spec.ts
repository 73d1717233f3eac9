import type { APIRequestContext, Page } from '@playwright/test';
import { draft, key, ternholm } from './support/plan';
import { atThePier, pierBackdrop } from './support/pier';
import { urgentPid } from './support/processes';
import { pick, server, signIn } from './support/session';
import { expect, test } from './support/test';

/** Takeovers, from a phone to a real player: prepared, activated by one press and one confirmation, tried as a drill, cleared, by a key too. */
let page: Page;
let player: Page;
atThePier((pier) => ({ page, player } = pier), { viewport: { width: 390, height: 844 } });
// Another person's unfinished work, which stays unpublished.
test.beforeAll(() => pierBackdrop('weather-outlook'));

const stage = () => player.locator('#stage');
const row = (name: string) =>
  page.getByRole('listitem').filter({ has: page.getByRole('heading', { name, exact: true }) });
const inForce = (name: string) => page.getByRole('region', { name: `In force: ${name}` });
const fog = async () => (await draft()).bookings.find(({ name }) => name === 'Fog on the pier');

test('one is prepared: what, where, how long, and instructions', async () => {
  await page.goto(server('/takeovers'));
  await page.getByRole('button', { name: 'Prepare one' }).click();
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Name').fill('Fog on the pier');
  await pick(sheet.getByLabel('What'), 'media:route-map', 'Route map');
  await sheet.getByLabel('Where').fill('pier-end');
  await expect(sheet.getByLabel('Takeover: ahead of every priority')).toBeChecked();
  await sheet.getByLabel('Instructions').fill('Call the pilot first.');
  await sheet.getByLabel('How long').fill('a while');
  await sheet.getByRole('button', { name: 'Book it' }).click();
  await expect(sheet.getByText('Write a duration under a day, e.g. 30 min')).toBeVisible();
  await sheet.getByLabel('How long').fill('45 min');
  await sheet.getByRole('button', { name: 'Book it' }).click();
  await expect(row('Fog on the pier')).toContainText('Call the pilot first.');
  await expect(row('Fog on the pier')).toContainText('for 45 min');
  expect(await fog()).toMatchObject({
    ...{ priority: 5, takeover: true, onHold: true, where: 'pier-end' },
    prepared: { words: 'Call the pilot first.', lasts: 2_700_000 },
  });
});

test('from a phone it is activated by one press and one confirmation that says in numbers what will happen', async () => {
  await row('Fog on the pier')
    .getByRole('button', { name: /^Activate/ })
    .click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('Call the pilot first.');
  await expect(dialog).toContainText('1 screen at 1 site: all are online and show it within seconds.');
  await expect(dialog).toContainText('for 45 min, or until the all-clear');
  const confirm = dialog.getByRole('button', { name: 'Activate on 1 screen' });
  await expect(confirm).toBeFocused();
  await confirm.click();
  await expect(stage()).toHaveAttribute('data-media', 'route-map');
  await expect(inForce('Fog on the pier')).toContainText('1 of 1 screen says that it shows it.');
  await expect(inForce('Fog on the pier')).toContainText('activated by Ida Lunde');
  // Another person's unfinished work is on no screen, and still unpublished.
  await expect(page.getByTestId('docket')).toContainText('1');
});

test('others see it wherever they are, and give the all-clear; the log says who, when, and which screens', async ({
  browser,
}) => {
  const other = await browser.newPage();
  await signIn(other, '/library', { email: 'otto@ternholm.example', password: 'lamps-at-dawn' });
  await other.getByRole('link', { name: 'Fog on the pier in force' }).click();
  await other.getByRole('button', { name: 'All-clear' }).click();
  await expect(stage()).toHaveAttribute('data-media', 'line-flag');
  const log = other.getByRole('region', { name: 'Activated before' }).getByRole('listitem').first();
  await expect(log).toContainText(/activated .* by Ida Lunde; all-clear .* by Otto Brekke/);
  await log.getByText('1 of 1 screen showed it').click();
  await expect(log).toContainText(/Pier end\d\d:\d\d:\d\d to \d\d:\d\d:\d\d$/);
  await expect(inForce('Fog on the pier')).toHaveCount(0);
  expect(await fog()).toMatchObject({ onHold: true, when: {} });
  await other.close();
});

test('as a drill it says so on the glass, and what is prepared stays ready', async () => {
  const gale = page.locator('[data-takeover="gale"]');
  await gale.getByRole('button', { name: 'Drill…' }).click();
  const form = gale.getByRole('form', { name: 'Drill of Gale notice' });
  await expect(form.getByRole('button', { name: 'Drill on 0 screens' })).toBeDisabled();
  await form.getByRole('combobox', { name: 'Where' }).fill('pier-end');
  await form.getByRole('button', { name: 'Drill on 1 screen' }).click();
  await expect(stage()).toHaveAttribute('data-media', 'gale');
  await expect(player.getByText('DRILL')).toBeVisible();
  await expect(inForce('Gale notice, drill')).toContainText('DRILL');
  await expect(gale.getByRole('button', { name: /^Activate/ })).toBeVisible();
  await inForce('Gale notice, drill').getByRole('button', { name: 'All-clear' }).click();
  await expect(stage()).toHaveAttribute('data-media', 'line-flag');
  await expect(player.getByText('DRILL')).toBeHidden();
});

const send = (request: APIRequestContext, what: string, headers: Record<string, string>) =>
  request.post(server(`/api/takeovers/${what}`), { headers });

test('a program fires it with a key of that right alone, once under one idempotency key, and clears it', async ({
  request,
}) => {
  const id = (await fog())?.id ?? '';
  const refused = await send(request, `${id}/fire`, await key(['library', 'publish']));
  expect([refused.status(), refused.headers()['content-type']]).toEqual([403, 'application/problem+json']);
  expect(await refused.json()).toMatchObject({ status: 403, title: expect.stringContaining('key') });
  const headers = await key(['takeovers']);
  expect((await request.get(server('/api/plan'), { headers })).status()).toBe(403);
  const list = await request.get(server('/api/takeovers'), { headers });
  expect((await list.json()).prepared).toContainEqual({ id, name: 'Fog on the pier' });
  const once = { ...headers, 'idempotency-key': 'fog-2026-11-27T12:00' };
  const [one, two] = await Promise.all([send(request, `${id}/fire`, once), send(request, `${id}/fire`, once)]);
  expect([one.status(), two.status()]).toEqual([200, 200]);
  expect(await two.json()).toEqual(await one.json());
  await expect(stage()).toHaveAttribute('data-media', 'route-map');
  await expect(inForce('Fog on the pier')).toContainText('activated by Ida Lunde, by a key');
  const twice = await send(request, `${id}/fire`, { ...headers, 'idempotency-key': 'fog-2' });
  expect([twice.status(), (await twice.json()).title]).toEqual([409, expect.stringContaining('in force already')]);
  expect((await send(request, 'no-such/fire', headers)).status()).toBe(404);
  expect((await send(request, `${id}/fire`, { ...headers, 'idempotency-key': 'two words' })).status()).toBe(422);
  expect((await send(request, `${id}/all-clear`, headers)).status()).toBe(200);
  expect((await send(request, `${id}/all-clear`, headers)).status()).toBe(200);
  await expect(stage()).toHaveAttribute('data-media', 'line-flag');
});

test('what compiles is killed as one fires: it is in force whole or not at all, and can be fired', async () => {
  await page.goto(server('/takeovers'));
  const { database } = await import('@/database');
  const sequelize = database();
  await row('Fog on the pier')
    .getByRole('button', { name: /^Activate/ })
    .click();
  await expect(page.getByRole('button', { name: 'Activate on 1 screen' })).toBeVisible();
  const held = await sequelize.transaction();
  await sequelize.query('LOCK TABLE firings IN ACCESS EXCLUSIVE MODE', { transaction: held });
  await page.getByRole('button', { name: 'Activate on 1 screen' }).click();
  const waits = "SELECT 1 FROM pg_locks WHERE NOT granted AND relation = 'firings'::regclass";
  await expect.poll(async () => (await sequelize.query(waits))[0].length).toBeGreaterThan(0);
  process.kill(urgentPid(), 'SIGKILL');
  await held.rollback();
  await expect(page.getByRole('dialog').getByRole('alert')).toBeVisible();
  expect(await fog()).toMatchObject({ onHold: true });
  await expect(stage()).toHaveAttribute('data-media', 'line-flag');
  const { firings } = await import('@/services/editions');
  expect((await firings(await ternholm())).filter(({ clearedAt }) => clearedAt === null)).toEqual([]);
  await page.getByRole('button', { name: 'Activate on 1 screen' }).click();
  await expect(stage()).toHaveAttribute('data-media', 'route-map');
});

test('a player that is back later shows it if it is still in force, and not if it is over', async () => {
  await player.context().setOffline(true);
  await inForce('Fog on the pier').getByRole('button', { name: 'All-clear' }).click();
  await expect(inForce('Fog on the pier')).toHaveCount(0);
  await row('Fog on the pier')
    .getByRole('button', { name: /^Activate/ })
    .click();
  await page.getByRole('button', { name: 'Activate on 1 screen' }).click();
  await inForce('Fog on the pier').getByRole('button', { name: 'All-clear' }).click();
  await expect(inForce('Fog on the pier')).toHaveCount(0);
  await player.context().setOffline(false);
  await expect(stage()).toHaveAttribute('data-media', 'line-flag');
});

test('only chosen people may activate it; others see whom to ask', async ({ browser }) => {
  await row('Fog on the pier').getByRole('button', { name: 'Who may…' }).click();
  await page.getByRole('checkbox', { name: 'Ida Lunde' }).check();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Only these people may activate it.')).toBeVisible();
  const other = await browser.newPage();
  await signIn(other, '/takeovers', { email: 'otto@ternholm.example', password: 'lamps-at-dawn' });
  const theirs = other.getByRole('listitem').filter({ hasText: 'Only Ida Lunde may activate this.' });
  for (const name of ['Activate Fog on the pier…', 'Drill…', 'Who may…'])
    await expect(theirs.getByRole('button', { name })).toBeDisabled();
  await expect(theirs.getByRole('link', { name: 'Change it' })).toHaveCount(0);
  await expect(stage()).toHaveAttribute('data-media', 'line-flag');
  await other.close();
});
