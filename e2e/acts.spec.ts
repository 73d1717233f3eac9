import type { Page } from '@playwright/test';
import { manyPictures } from './support/files';
import { Operator } from './support/operator';
import { draft, ternholm } from './support/plan';
import { goTo, server, signIn } from './support/session';
import { expect, test } from './support/test';

/** An operator's tasks, counted: each click, drag, key and entry is one act. */
test.describe.configure({ mode: 'serial' });

let page: Page;
test.beforeAll(async ({ browser }) => {
  page = await browser.newPage();
  await signIn(page);
});
test.afterAll(() => page.close());

test('fifty files in, tagged, in a playlist and booked: at most 14 acts', async () => {
  // A slow machine needs long to make fifty pictures ready; acts are counted, not minutes.
  test.setTimeout(360_000);
  const operator = new Operator(page);
  await operator.click(page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Library' }));
  operator.acts++;
  await page.locator('[data-testid="files"]').setInputFiles(await manyPictures(50));
  const tray = page.getByTestId('uploads');
  await operator.fill(tray.getByLabel('Tags', { exact: true }), 'regatta');
  await operator.key('Tab');
  await operator.fill(tray.getByLabel('Put them into the playlist'), 'Regatta');
  const put = tray.getByRole('button', { name: 'Put them in' });
  await expect(put).toBeEnabled({ timeout: 240_000 });
  await operator.click(put);
  await expect
    .poll(async () => (await draft()).playlists.find(({ name }) => name === 'Regatta')?.items.length)
    .toBe(50);
  await operator.key('Control+k');
  await expect(page.getByRole('dialog').getByRole('combobox')).toBeFocused();
  await operator.write('Regatta');
  await operator.click(page.getByRole('link', { name: 'Book it' }));
  const sheet = page.getByRole('dialog');
  await expect(sheet.getByLabel('Name')).toHaveValue('Regatta');
  await operator.fill(sheet.getByLabel('Where'), 'hall');
  await operator.fill(sheet.getByLabel('When'), 'weekends 10 to 18');
  await operator.click(sheet.getByRole('button', { name: 'Book it' }));
  await expect(sheet).toHaveCount(0);
  const { bookings, media, playlists } = await draft();
  const list = playlists.find(({ name }) => name === 'Regatta');
  expect(bookings.find(({ name }) => name === 'Regatta')).toMatchObject({
    content: { playlist: list?.id },
    where: 'hall',
    when: { repeat: 'FREQ=WEEKLY;BYDAY=SA,SU', windows: [['10:00', '18:00']] },
  });
  expect(media.filter(({ tags }) => tags?.includes('regatta'))).toHaveLength(50);
  expect(operator.acts).toBeLessThanOrEqual(14);
});

test('every still twelve seconds except one: at most 4 acts', async () => {
  await page.goto(server('/playlists/regatta'));
  const operator = new Operator(page);
  const boxes = page.getByTestId('items').getByRole('checkbox');
  await expect(boxes).toHaveCount(50);
  await operator.click(boxes.first());
  operator.acts++;
  await boxes.last().click({ modifiers: ['Shift'] });
  await operator.click(boxes.nth(7));
  const bar = page.getByRole('region', { name: 'Chosen items' });
  await expect(bar.getByRole('status')).toHaveText('49 items chosen');
  await operator.fill(bar.getByLabel('Seconds of 49 items'), '12');
  await page.getByLabel('Name', { exact: true }).focus();
  const lengths = async () =>
    (await draft()).playlists.find(({ id }) => id === 'regatta')?.items.map(({ durationMs }) => durationMs);
  await expect.poll(lengths).toEqual(Array.from({ length: 50 }, (_, i) => (i === 7 ? undefined : 12_000)));
  expect(operator.acts).toBeLessThanOrEqual(4);
});

test('a picture of the right size for the pixel wall among 50 000: at most 3 acts', async () => {
  const { networkId } = await ternholm();
  const { rows } = await import('@/database');
  await rows(
    `INSERT INTO plan_objects (id, network_id, kind, slug, name, document, format)
     SELECT gen_random_uuid(), $1, 'media', id, id,
       jsonb_build_object('id', id, 'name', id, 'kind', 'image', 'width', 500 + i % 1500, 'height', 501 + i % 900,
         'bytes', 1000, 'added', '2026-01-01T00:00:00Z'), 2
     FROM (SELECT i, 'f' || i AS id FROM generate_series(1, 50000) AS i) AS made`,
    [networkId],
  );
  await page.reload();
  const operator = new Operator(page);
  await goTo(page, 'Library');
  await expect(page.getByText('50,092 files', { exact: true })).toBeVisible();
  await operator.key('/');
  operator.acts++;
  await page.keyboard.type('384x192');
  const cards = page.locator('[data-media]');
  await expect(cards.first()).toContainText('exactly this size');
  await expect(page.getByText('exactly this size')).toHaveCount(5);
  expect(operator.acts).toBeLessThanOrEqual(3);
});
