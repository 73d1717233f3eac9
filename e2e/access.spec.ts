import { PLACES, violations } from './support/access';
import { server, signIn } from './support/session';
import { expect, test } from './support/test';

/** WCAG 2.2 AA by axe-core: no violations in any place, by day and by night. */
for (const theme of ['light', 'dark'] as const) {
  test(`every place is open to all, ${theme === 'light' ? 'by day' : 'by night'}`, async ({ browser }) => {
    // A look at every place by every rule takes a machine that does other things too its time.
    test.setTimeout(300_000);
    const context = await browser.newContext({ colorScheme: theme });
    const page = await context.newPage();
    await page.goto(server('/sign-in'));
    expect(await violations(page)).toEqual([]);
    await page.goto(server('/join#nothing'));
    await expect(page.getByRole('alert').filter({ hasText: 'ask for another' })).toBeVisible();
    expect(await violations(page)).toEqual([]);
    await signIn(page);
    for (const [place, path] of PLACES) {
      await page.goto(server(path));
      await expect(page.getByRole('heading', { level: 1 })).toBeAttached();
      expect([place, ...(await violations(page))]).toEqual([place]);
    }
    await page.goto(server('/plan'));
    for (const view of ['day', 'month', 'year', 'list']) {
      await page.getByRole('button', { name: view, exact: true }).click();
      expect([view, ...(await violations(page))]).toEqual([view]);
    }
    await page.getByRole('button', { name: /^To look at/ }).click();
    await expect(page.getByRole('region', { name: 'clash' })).toBeVisible();
    expect(await violations(page)).toEqual([]);
    await page.locator('[data-booking="morning-sailings"]').click();
    await expect(page.getByRole('button', { name: 'Close' })).toBeVisible();
    expect(await violations(page)).toEqual([]);
    await page.goto(server('/screens?screen=ternholm-hall'));
    await expect(page.getByRole('button', { name: 'Close' })).toBeVisible();
    expect(await violations(page)).toEqual([]);
    await context.close();
  });
}

test('whole by keyboard: places, the moment, the docket', async ({ page }) => {
  const errors: string[] = [];
  page.on('console', (message) => {
    if (message.type() === 'error') errors.push(`${message.text()} ${message.location().url}`);
  });
  page.on('pageerror', (error) => errors.push(error.message));
  await signIn(page);
  for (const [key, place] of [
    ['l', 'Library'],
    ['p', 'Playlists'],
    ['b', 'Plan'],
    ['s', 'Screens'],
    ['n', 'Now'],
  ] as const) {
    await page.keyboard.press('g');
    await page.keyboard.press(key);
    await expect(page.getByRole('heading', { level: 1, name: place, exact: true })).toBeAttached();
  }
  await page.keyboard.press('?');
  await expect(page.getByRole('heading', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  const moment = page.getByTestId('moment');
  await page.getByRole('slider', { name: 'Moment' }).focus();
  await page.keyboard.press('PageUp');
  const later = await moment.innerText();
  await page.keyboard.press('PageDown');
  await expect(moment).not.toHaveText(later);
  await page.keyboard.press('Home');
  await expect(page.getByRole('button', { name: 'Back to now' })).toHaveAttribute('aria-pressed', 'true');
  // Browsers ask for this of themselves at times, whatever the pages name.
  expect((await page.request.get(server('/favicon.ico'))).status()).toBe(200);
  // Neither the policy for scripts nor anything else was broken on the way.
  expect(errors).toEqual([]);
});

test('the theme follows the system until one chooses', async ({ browser }) => {
  const page = await browser.newPage({ colorScheme: 'dark' });
  await signIn(page);
  const root = page.locator('html');
  await expect(root).toHaveAttribute('data-theme', 'dark');
  await page.keyboard.press('d');
  await expect(root).toHaveAttribute('data-theme', 'light');
  await page.reload();
  await expect(root).toHaveAttribute('data-theme', 'light');
  await page.close();
});
