import type { Page } from '@playwright/test';
import { draft } from './support/plan';
import { goTo, server, signIn } from './support/session';
import { expect, test } from './support/test';

/** Playlists that are shuffled, films that are cut, and bookings that are woven into what shows. */
test.describe.configure({ mode: 'serial' });

let page: Page;
test.beforeAll(async ({ browser }) => {
  page = await browser.newPage();
  await signIn(page);
});
test.afterAll(() => page.close());

const bookingNamed = async (name: string) => (await draft()).bookings.find((one) => one.name === name);
const lanes = async () => (await draft()).playlists.find(({ id }) => id === 'lanes');

test('a playlist is shuffled, and goes as listed again', async () => {
  await page.goto(server('/playlists/lanes'));
  const order = page.getByLabel('Order');
  await expect(order).toHaveValue('listed');
  await order.selectOption('shuffled');
  await expect.poll(async () => (await lanes())?.order).toBe('shuffled');
  await page.reload();
  await expect(order).toHaveValue('shuffled');
  await order.selectOption('listed');
  await expect.poll(async () => (await lanes())?.order).toBeUndefined();
});

test('a film is cut where one says; what can not be cut is told and stays', async () => {
  const clip = page.getByLabel(/^Clip of /);
  const total = page.getByTestId('loop');
  const before = await total.innerText();
  await clip.fill('1 to 3');
  await clip.press('Enter');
  await expect
    .poll(async () => (await lanes())?.items.map((item) => item.clip))
    .toEqual([undefined, undefined, [1000, 3000]]);
  await expect(clip).toHaveValue('1–3');
  await expect(total).not.toHaveText(before);
  await clip.fill('1 to 3000');
  await clip.press('Tab');
  await expect(clip).toHaveAttribute('aria-invalid', 'true');
  await expect(page.getByText(/ends at .*: let the clip end there or before\./)).toBeVisible();
  await clip.focus();
  await clip.press('Escape');
  await expect(clip).toHaveValue('1–3');
  await clip.fill('');
  await clip.press('Enter');
  await expect.poll(async () => (await lanes())?.items.every((item) => item.clip === undefined)).toBe(true);
  await expect(total).toHaveText(before);
});

test('a booking is woven in by a share, and why tells it; a takeover is not', async () => {
  await goTo(page, 'Plan');
  await page.getByRole('button', { name: 'list', exact: true }).click();
  await page.locator('[data-booking="kiosk-card"]').click();
  const sheet = page.getByRole('dialog');
  const woven = sheet.getByLabel('Woven in');
  await woven.fill('sometimes');
  await woven.press('Tab');
  await expect(sheet.getByText('Write a share as 10 %, or how often it comes, as every 5 min.')).toBeVisible();
  await woven.fill('25%');
  await sheet.getByLabel('Name').focus();
  await expect.poll(async () => (await bookingNamed('Kiosk card'))?.weave).toEqual({ share: 0.25 });
  await expect(woven).toHaveValue('25 % of the time');
  await expect(page.getByText('changed this meanwhile')).toHaveCount(0);
  await sheet.getByText('Takeover: ahead of every priority').click();
  await expect(
    sheet.getByText('A takeover is not woven in: it goes ahead of all. Take one of the two away.'),
  ).toBeVisible();
  await sheet.getByText('Takeover: ahead of every priority').click();
  await woven.fill('');
  await sheet.getByLabel('Name').focus();
  await expect.poll(async () => (await bookingNamed('Kiosk card'))?.weave).toBeUndefined();
  await page.keyboard.press('Escape');
});
