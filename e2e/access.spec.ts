import type { Page } from '@playwright/test';
import { PLACES, violations } from './support/access';
import { openSession, server, signIn } from './support/session';
import { expect, test } from './support/test';

/** By night colours are others, and nothing else. */
const OF_COLOUR = ['color-contrast', 'link-in-text-block'];

/** WCAG 2.2 AA by axe-core: no violations in any place, by day and by night. */
test('every place is open to all, by day and by night', async ({ page }) => {
  // A look at every place by every rule takes a machine that does other things too its time.
  test.setTimeout(600_000);
  // A page that its script can't take over as it came from the server is drawn again, and loses what was pressed until then.
  const errors: string[] = [];
  page.on('pageerror', ({ message }) => errors.push(`${page.url()}: ${message}`));
  const isOpen = async (place: string) => {
    for (const theme of ['light', 'dark'] as const) {
      await page.emulateMedia({ colorScheme: theme });
      await expect(page.locator('html')).toHaveAttribute('data-theme', theme);
      const at = `${place}, ${theme}`;
      expect([at, ...(await violations(page, theme === 'dark' ? OF_COLOUR : undefined))]).toEqual([at]);
    }
  };
  await page.goto(server('/sign-in'));
  await isOpen('sign-in');
  await page.goto(server('/join#nothing'));
  await expect(page.getByRole('alert').filter({ hasText: 'ask for another' })).toBeVisible();
  await isOpen('a link that is used up');
  await page.goto(server('/board#nothing'));
  await expect(page.getByText('This link no longer opens anything', { exact: false })).toBeVisible();
  await isOpen('a board’s link that was ended');
  await openSession(page);
  for (const [place, path] of PLACES) {
    await page.goto(server(path));
    await expect(page.getByRole('heading', { level: 1 })).toBeAttached();
    await isOpen(place);
  }
  await page.goto(server('/plan'));
  for (const view of ['day', 'month', 'year', 'list']) {
    await page.getByRole('button', { name: view, exact: true }).click();
    await isOpen(view);
  }
  await page.getByRole('button', { name: /^Findings/ }).click();
  await expect(page.getByRole('region', { name: 'clash' })).toBeVisible();
  await isOpen('findings');
  await page.locator('[data-booking="morning-sailings"]').click();
  await expect(page.getByRole('button', { name: 'Close' })).toBeVisible();
  await isOpen('a booking');
  await page.goto(server('/screens?screen=ternholm-hall'));
  await expect(page.getByRole('button', { name: 'Close' })).toBeVisible();
  await isOpen('a screen');
  expect(errors).toEqual([]);
});

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

/** The focused element, if something covers it; null if it is visible. */
const hiddenFocus = (page: Page) =>
  page.evaluate(() => {
    const one = document.activeElement;
    if (!(one instanceof HTMLElement) || one === document.body || one.id === 'place') return null;
    const { left, top, width, height } = one.getBoundingClientRect();
    if (width < 2 || height < 2) return null;
    const points = [0.1, 0.5, 0.9].flatMap((x) => [0.1, 0.5, 0.9].map((y) => [left + width * x, top + height * y]));
    const isSeen = points.some(([x = 0, y = 0]) => {
      const found = document.elementFromPoint(x, y);
      return found !== null && (one.contains(found) || found.contains(one) || found.closest('label')?.contains(one));
    });
    return isSeen ? null : (one.getAttribute('aria-label') ?? one.textContent).slice(0, 60);
  });

/** WCAG 2.2, 2.4.11: what has the focus is not wholly hidden by what the page puts over it. */
test('what has the focus is never hidden under a bar', async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 640 });
  await openSession(page);
  for (const path of ['/', '/library', '/playlists', '/playlists/house', '/plan', '/screens', '/publish', '/people']) {
    await page.goto(server(path));
    await expect(page.getByRole('button', { name: 'Ida', exact: true })).toBeEnabled();
    const hidden = new Set<string>();
    for (const [key, times] of [
      ['Tab', 40],
      ['Shift+Tab', 12],
    ] as const)
      for (let i = 0; i < times; i++) {
        await page.keyboard.press(key);
        const found = await hiddenFocus(page);
        if (found !== null) hidden.add(found);
      }
    expect([path, ...hidden]).toEqual([path]);
  }
});

test('the theme follows the system until you choose', async ({ browser }) => {
  const page = await browser.newPage({ colorScheme: 'dark' });
  await signIn(page);
  const root = page.locator('html');
  await expect(root).toHaveAttribute('data-theme', 'dark');
  await page.emulateMedia({ colorScheme: 'light' });
  await expect(root).toHaveAttribute('data-theme', 'light');
  await page.emulateMedia({ colorScheme: 'dark' });
  await expect(root).toHaveAttribute('data-theme', 'dark');
  await page.keyboard.press('d');
  await expect(root).toHaveAttribute('data-theme', 'light');
  await page.reload();
  await expect(root).toHaveAttribute('data-theme', 'light');
  await page.emulateMedia({ colorScheme: 'light' });
  await page.emulateMedia({ colorScheme: 'dark' });
  await expect(root).toHaveAttribute('data-theme', 'light');
  await page.close();
});
