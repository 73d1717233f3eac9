import { bindDatabase } from './support/plan';
import { goTo, pick, server, signIn } from './support/session';
import { expect, test } from './support/test';

/** A library of more files than a page loads at once: visible ones are loaded, and files that come into use join the plan. */
const FILES = 150;
const UNA = { email: 'una@kelpie.example', password: 'long enough by far' };

/** A second network on the instance, with many files that nothing uses yet; and what may be done to it behind the interface. */
async function kelpie() {
  bindDatabase();
  const { database } = await import('@/database');
  database();
  const { addPerson } = await import('@/services/people');
  const { createNetwork, edit } = await import('@/services/plan');
  const actor = await addPerson(await createNetwork({ name: 'Kelpie', slug: 'kelpie' }), { name: 'Una', ...UNA });
  await edit(actor, [
    { kind: 'site', id: 'loch', add: { name: 'Loch', timeZone: 'Europe/Oslo' } },
    { kind: 'screen', id: 'pier', add: { name: 'Pier', site: 'loch', width: 1920, height: 1080 } },
    { kind: 'playlist', id: 'loop', add: { name: 'Loop', items: [] } },
    ...Array.from({ length: FILES }, (_, i) => ({
      ...{ kind: 'media' as const, id: `file-${i}` },
      add: {
        ...{ name: `File ${i}`, kind: 'image' as const, width: 1920, height: 1080, bytes: 1000, tags: [] },
        added: new Date(Date.UTC(2026, 0, 1) + i * 60_000).toISOString(),
      },
    })),
  ]);
  return { actor, edit };
}

test.describe.configure({ mode: 'serial' });
let library: ReturnType<typeof kelpie>;
test.beforeAll(() => {
  library = kelpie();
});

test('files are loaded during scrolling, the newest first; files that others, or you, use join what the page knows', async ({
  page,
}) => {
  const { actor, edit } = await library;
  await signIn(page, '/', UNA);
  await goTo(page, 'Library');
  const cards = page.locator('[data-media]');
  await expect(page.getByText(`${FILES} files`, { exact: true })).toBeVisible();
  await expect(cards.first()).toContainText(`File ${FILES - 1}`);
  expect(await cards.count()).toBeLessThan(FILES);
  while ((await cards.count()) < FILES) {
    const before = await cards.count();
    await cards.last().scrollIntoViewIfNeeded();
    await expect.poll(() => cards.count()).toBeGreaterThan(before);
  }
  await expect(page.getByRole('button', { name: /^Show more/ })).toHaveCount(0);
  await page.getByLabel('Find media').fill('file 14');
  await expect(page.getByText('12 files', { exact: true })).toBeVisible();
  await expect(cards.first()).toContainText('File 14');

  // Another person uses a file that this page never had: it is named here, without a reload.
  await goTo(page, 'Playlists');
  await page.getByRole('link', { name: /Loop/ }).click();
  await expect(page.getByTestId('items')).toContainText('Drag files');
  await edit(actor, [{ kind: 'playlist', id: 'loop', set: { items: [{ media: 'file-3' }] } }]);
  await expect(page.getByTestId('items').getByRole('listitem')).toContainText('File 3');

  // One's own choice, of a file that is on no page that was loaded.
  await page.goto(server('/plan'));
  await page.getByRole('button', { name: 'New booking' }).first().click();
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Name').fill('Morning');
  await pick(sheet.getByLabel('What'), 'media:file-7', 'File 7');
  await sheet.getByLabel('Where').fill('all');
  await sheet.getByRole('button', { name: 'Book it' }).click();
  await expect(page.getByText('Morning is booked as a draft.')).toBeVisible();
  await page.getByRole('button', { name: 'list', exact: true }).click();
  await expect(page.locator('[data-booking]')).toContainText('File 7');

  await page.goto(server('/library'));
  await page.getByLabel('Find media').fill('File 7');
  await page.locator('[data-media="file-7"]').click();
  await expect(page.getByRole('region', { name: 'Used in' })).toContainText('booking Morning');
  await page.getByLabel('Name').fill('Seventh');
  await page.getByRole('link', { name: 'All files' }).click();
  // Coming back shows the same search.
  await expect(page.getByLabel('Find media')).toHaveValue('File 7');
  await page.getByLabel('Find media').fill('seventh');
  await expect(page.locator('[data-media="file-7"]')).toContainText('Seventh');
});

test('what is chosen can be taken out again: the focus stays in the form, and leaving the field saves', async ({
  page,
}) => {
  bindDatabase();
  const { rows } = await import('@/database');
  const backdrop = async () =>
    (
      await rows<{ backdrop: string | null }>(
        `SELECT o.document->'backdrop'->>'media' AS backdrop FROM plan_objects o JOIN networks n ON n.id = o.network_id
       WHERE n.slug = 'kelpie' AND o.kind = 'screen' AND o.slug = 'pier'`,
      )
    )[0]?.backdrop;
  await signIn(page, '/', UNA);
  await goTo(page, 'Screens');
  await page.locator('[data-screen-row="pier"]').click();
  const field = page.getByRole('dialog').getByRole('combobox', { name: 'Backdrop' });
  await pick(field, 'media:file-9', 'File 9');
  await page.getByRole('dialog').getByLabel('Name').focus();
  await expect.poll(backdrop).toBe('file-9');
  await page.getByRole('button', { name: 'Remove “File 9”' }).click();
  await expect(field).toBeFocused();
  await page.keyboard.press('Tab');
  await expect.poll(backdrop).toBeNull();
});

test('a picture of the right size for a screen is found among many by its size, in words', async ({ page }) => {
  const { actor, edit } = await library;
  await edit(actor, [
    ...[
      ['wall', 384, 192],
      ['wall-upright', 192, 384],
      ['wall-double', 768, 384],
    ].map(([id, width, height]) => ({
      ...{ kind: 'media' as const, id: String(id) },
      add: {
        ...{ name: String(id), kind: 'image' as const, width: Number(width), height: Number(height), bytes: 1000 },
        ...{ tags: ['lanes'], added: '2026-01-01T00:00:00Z' },
      },
    })),
  ]);
  await signIn(page, '/', UNA);
  await goTo(page, 'Library');
  await page.keyboard.press('/');
  await page.keyboard.type('192x384');
  await expect(page.getByText('3 files', { exact: true })).toBeVisible();
  const cards = page.locator('[data-media]');
  await expect(cards.filter({ hasText: 'exactly this size' })).toHaveCount(2);
  await expect(cards.last()).toContainText('same shape, reduced to 50 %');
  await page.getByLabel('Find media').fill('');
  const narrow = page.getByRole('group', { name: 'Narrow down' });
  await narrow.getByRole('button', { name: 'Only with the tag lanes: 3' }).click();
  await expect(page.getByLabel('Find media')).toHaveValue('lanes');
  await expect(page.getByText('3 files', { exact: true })).toBeVisible();
  await narrow.getByRole('button', { name: /^Not used/ }).click();
  await expect(narrow.getByRole('button', { name: /^Not used/ })).toHaveAttribute('aria-pressed', 'true');
  await edit(actor, [{ kind: 'playlist', id: 'loop', set: { items: [{ media: 'wall' }] } }]);
  await expect(page.getByText('2 files', { exact: true })).toBeVisible();
});

test('the times of a file are typed in words, and mistakes get a message', async ({ page }) => {
  await signIn(page, '/library/wall', UNA);
  const field = page.getByLabel('Available');
  await field.fill('until the ice');
  await field.press('Tab');
  await expect(field).toHaveAttribute('aria-invalid', 'true');
  await field.fill('weekends until 28 feb 2027');
  await field.press('Tab');
  const { actor } = await library;
  const { draftPlan } = await import('@/services/plan');
  await expect
    .poll(async () => (await draftPlan(actor)).plan.media.find(({ id }) => id === 'wall')?.when)
    .toMatchObject({ to: '2027-02-28', repeat: 'FREQ=WEEKLY;BYDAY=SA,SU' });
  await expect(field).not.toHaveAttribute('aria-invalid', 'true');
});
