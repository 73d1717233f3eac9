import type { Page } from '@playwright/test';
import { PLACES, violations } from './support/access';
import { openSession, server, signIn } from './support/session';
import { expect, test } from './support/test';

/** Phones, and 200 % zoom of a usual window (640 × 400): nothing needs scrolling in two directions (WCAG 2.2, 1.4.10 Reflow), nothing is lost. */

const LOOKED_AT = [
  ...PLACES,
  ['a booking', '/plan?booking=morning-sailings'],
  ['a screen', '/screens?screen=ternholm-hall'],
] as const;

/**
 * What stands over the right edge, or under something that cuts it off: scales of time are cut at their ends by nature, and a table of data may
 * be wider than a window (1.4.10 excepts it), where it has columns at all.
 */
const over = (page: Page) =>
  page.evaluate(() => {
    const wide = document.documentElement.clientWidth;
    return [...document.querySelectorAll<HTMLElement>('body *')]
      .filter((one) => {
        const { right, width, height } = one.getBoundingClientRect();
        if (width === 0 || height === 0 || right <= wide + 1) return false;
        return !one.closest(
          '[role="slider"], [aria-hidden="true"], [role="grid"][aria-colcount]:not([aria-colcount="1"]), [aria-label="Bookings in layers"], .sr-only, svg',
        );
      })
      .map((one) => `${one.tagName} ${one.textContent.slice(0, 40)}`);
  });

/** A page is opened in the first window of a row, and then made larger. */
const WINDOWS = {
  phones: [
    [320, 640],
    [390, 844],
  ],
  'small windows': [
    [640, 400],
    [1024, 640],
  ],
} as const;

for (const [kind, sizes] of Object.entries(WINDOWS))
  test(`${kind}: all is in reach, and large enough to press`, async ({ page }) => {
    test.setTimeout(300_000);
    await openSession(page);
    for (const [place, path] of LOOKED_AT) {
      await page.setViewportSize({ width: sizes[0][0], height: sizes[0][1] });
      await page.goto(server(path));
      // Under a sheet it is hidden from everybody: so it isn't asked for by its role.
      await expect(page.locator('h1')).toBeAttached();
      const isSheet = path.includes('?');
      await expect(page.getByRole('dialog')).toHaveCount(isSheet ? 1 : 0);
      await expect(page.locator('[aria-busy="true"]')).toHaveCount(0);
      // What comes last into a booking's sheet is looked at too.
      if (place === 'a booking') await expect(page.getByTestId('next-days')).toContainText('in these days');
      for (const [width, height] of sizes) {
        const at = `${place}, ${width} wide`;
        await page.setViewportSize({ width, height });
        // As soon as the page has measured its room.
        await expect.poll(async () => [at, ...(await over(page))]).toEqual([at]);
        expect([at, await page.evaluate(() => document.documentElement.scrollWidth)]).toEqual([at, width]);
        // What is large enough to press in the smaller window is so in the larger one.
        if (width === sizes[0][0]) expect([at, ...(await violations(page, ['target-size']))]).toEqual([at]);
      }
    }
  });

test.describe('on a phone', () => {
  let page: Page;
  test.describe.configure({ mode: 'serial' });
  test.beforeAll(async ({ browser }) => {
    page = await browser.newPage({ viewport: { width: 390, height: 844 }, hasTouch: true });
    await signIn(page);
  });
  test.afterAll(() => page.close());

  test('every place, the docket and the rail are visible', async () => {
    for (const name of ['Now', 'Library', 'Playlists', 'Plan', 'Screens'])
      await expect(
        page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name, exact: true }),
      ).toBeInViewport({ ratio: 1 });
    await expect(page.getByTestId('docket')).toBeInViewport({ ratio: 1 });
    await expect(page.getByRole('slider', { name: 'Moment' })).toBeInViewport({ ratio: 1 });
    for (const name of ['Change before', 'Back to now', 'Change after'])
      await expect(page.getByRole('button', { name })).toBeInViewport({ ratio: 1 });
    await expect(page.getByLabel('Looking at')).toBeInViewport({ ratio: 1 });
  });

  test('a screen is looked into, and left again', async () => {
    await page.locator('[data-screen]').first().tap();
    await expect(page.getByTestId('why')).toBeInViewport();
    await page.getByRole('button', { name: 'Close' }).tap();
    await expect(page.locator('[data-screen]').first()).toBeInViewport();
  });

  test('the plan is a list and a day there, and something is booked', async () => {
    await page.getByRole('link', { name: 'Plan', exact: true }).tap();
    await expect(page.getByRole('button', { name: 'list', exact: true })).toHaveAttribute('aria-pressed', 'true');
    await expect(page.getByRole('button', { name: 'week', exact: true })).toHaveCount(0);
    await page.getByRole('button', { name: 'day', exact: true }).tap();
    await expect(page.locator('[data-bar]').first()).toBeVisible();
    await page.getByRole('button', { name: 'New booking' }).tap();
    const book = page.getByRole('button', { name: 'Book it' });
    await expect(book).toBeInViewport({ ratio: 1 });
    // An untouched field shows no error.
    await expect(page.locator('[aria-invalid="true"]')).toHaveCount(0);
    await book.tap();
    await expect(page.getByText('Write a name.')).toBeVisible();
  });
});

test('hours on the ruler stand apart, however much room a panel leaves', async ({ page }) => {
  await signIn(page, '/plan');
  await page.getByRole('button', { name: 'day', exact: true }).click();
  await page.getByRole('button', { name: /^Findings/ }).click();
  await expect(page.getByRole('complementary', { name: 'Findings' })).toBeVisible();
  const labels = page.locator('[data-hour]');
  await expect
    .poll(async () => {
      const boxes = await labels.evaluateAll((list) =>
        list.map((one) => one.getBoundingClientRect()).map(({ left, right }) => [left, right] as const),
      );
      return boxes.length > 3 && boxes.every(([left], i) => i === 0 || left >= (boxes[i - 1]?.[1] ?? 0));
    })
    .toBe(true);
});
