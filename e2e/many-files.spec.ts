import type { Page } from '@playwright/test';
import { draft, ternholm } from './support/plan';
import { Operator } from './support/operator';
import { goTo, server, signIn } from './support/session';
import { expect, test } from './support/test';

/** What is done to one file on its own page, and to many at once. */
test.describe.configure({ mode: 'serial' });

let page: Page;
test.beforeAll(async ({ browser }) => {
  page = await browser.newPage();
  await signIn(page);
});
test.afterAll(() => page.close());

const file = async (id: string) => (await draft()).media.find((one) => one.id === id);
const tagged = async (tag: string) =>
  (await draft()).media.flatMap(({ id, tags }) => (tags?.includes(tag) ? [id] : [])).sort();
const bar = () => page.getByRole('region', { name: 'Chosen files' });
const box = (name: string) => page.getByRole('checkbox', { name: `Choose ${name}`, exact: true });

test('a range of files is chosen with Shift, all of them by one press; letting go leaves them be', async () => {
  await goTo(page, 'Library');
  await page.getByLabel('Find media').fill('lanes');
  await expect(page.getByText('5 files', { exact: true })).toBeVisible();
  const boxes = page.getByRole('checkbox');
  await boxes.nth(0).click();
  await boxes.nth(2).click({ modifiers: ['Shift'] });
  await expect(bar().getByRole('status')).toHaveText('3 files chosen');
  await bar().getByRole('button', { name: 'Choose all 5' }).click();
  await expect(bar().getByRole('status')).toHaveText('5 files chosen');
  await bar().getByRole('button', { name: 'Clear selection' }).click();
  await expect(bar()).toHaveCount(0);
});

test('many are tagged and untagged at once, and undone at once', async () => {
  await box('Lane arrows').click();
  await box('Walking pace').click();
  const field = bar().getByLabel('Tags for the chosen files');
  await field.fill('not a tag!');
  await field.press('Enter');
  await expect(bar().getByRole('alert')).toBeVisible();
  await field.fill('pier, Night');
  await field.press('Enter');
  await expect.poll(() => tagged('night')).toEqual(['lane-flow', 'wall-slow']);
  expect(await tagged('pier')).toEqual(['lane-flow', 'wall-slow']);
  await field.fill('night');
  await bar().getByRole('button', { name: 'Remove tag' }).click();
  await expect.poll(() => tagged('night')).toEqual([]);
  await bar().getByRole('button', { name: 'Clear selection' }).focus();
  await page.keyboard.press('Control+z');
  await expect.poll(() => tagged('night')).toEqual(['lane-flow', 'wall-slow']);
});

test('many get times in words, and are put into a playlist; used files are not deleted', async () => {
  const field = bar().getByLabel('When the chosen files are available');
  await field.fill('until the ice');
  await field.press('Enter');
  await expect(bar().getByRole('alert')).toBeVisible();
  await field.fill('until 28 feb 2030');
  await field.press('Enter');
  await expect.poll(async () => (await file('wall-slow'))?.when).toMatchObject({ to: '2030-02-28' });
  expect((await file('lane-flow'))?.when).toMatchObject({ to: '2030-02-28' });
  await bar().getByLabel('Put them into the playlist').fill('Pier lanes');
  await bar().getByRole('button', { name: 'Put them in' }).click();
  await expect
    .poll(async () =>
      (await draft()).playlists.find(({ name }) => name === 'Pier lanes')?.items.map(({ media }) => media),
    )
    .toEqual(['lane-flow', 'wall-slow']);
  await bar().getByRole('button', { name: 'Delete' }).click();
  await expect(page.getByText(/is still used by/).first()).toBeVisible();
  expect(await file('wall-slow')).toBeDefined();
  await bar().getByRole('button', { name: 'Clear selection' }).click();
});

test('a file goes straight into what plays on some screens now, tagged in the same step: six acts', async () => {
  const { edit } = await import('@/services/plan');
  const jetty = { name: 'Jetty', site: 'sillarvik', width: 384, height: 192, tags: ['jetty'] };
  await edit(await ternholm(), [
    { kind: 'playlist', id: 'jetty-loop', add: { name: 'Jetty loop', items: [{ media: 'wall-slow' }] } },
    { kind: 'screen', id: 'jetty', add: { ...jetty, backdrop: { playlist: 'jetty-loop' } } },
    { kind: 'screen', id: 'mole', add: { ...jetty, name: 'Mole', backdrop: { media: 'wall-slow' } } },
  ]);
  await goTo(page, 'Library');
  const operator = new Operator(page);
  await operator.fill(page.getByLabel('Find media'), 'kiosk card');
  await operator.click(page.locator('[data-media="menu-tall"]'));
  await operator.click(page.getByRole('button', { name: 'Put on screens…' }));
  const sheet = page.getByRole('dialog');
  await sheet.getByRole('button', { name: 'Put in', exact: true }).click();
  await expect(sheet.getByRole('alert')).toContainText('Choose screens');
  await operator.fill(sheet.getByRole('combobox', { name: 'Screens' }), 'jetty');
  await expect(sheet.getByRole('checkbox', { name: 'Jetty loop on 1 screen' })).toBeChecked();
  await expect(sheet.getByText('On 1 screen no playlist is playing now')).toBeVisible();
  await operator.fill(sheet.getByLabel('Also add a tag'), 'promoted');
  await operator.click(sheet.getByRole('button', { name: 'Put into 1 playlist, on 1 screen' }));
  await expect(sheet).toHaveCount(0);
  expect(operator.acts).toBe(6);
  const loop = async () =>
    (await draft()).playlists.find(({ id }) => id === 'jetty-loop')?.items.map(({ media }) => media);
  await expect.poll(loop).toEqual(['wall-slow', 'menu-tall']);
  expect(await tagged('promoted')).toEqual(['menu-tall']);
  await expect(page.getByRole('region', { name: 'Used in' })).toContainText('playlist Jetty loop');
  // Both are one act: one step back takes both away.
  await page.keyboard.press('Control+z');
  await expect.poll(loop).toEqual(['wall-slow']);
  expect(await tagged('promoted')).toEqual([]);
});

test("a file's page shows how it fits each size of screen, and when it shows next", async () => {
  await page.goto(server('/library/route-map'));
  const ours = page.getByRole('region', { name: 'On our screens' });
  const upright = ours.getByRole('listitem').filter({ hasText: '1080 × 1920' });
  await expect(upright).toContainText('68 % bars');
  await ours.getByLabel('filling the screen, cropped').check();
  await expect(upright).toContainText('68 % cut off, enlarged 1.8 times');
  await ours.getByLabel('pixel for pixel').check();
  await expect(ours.getByRole('listitem').filter({ hasText: '384 × 192' })).toContainText('96 % cut off');
  await expect(page.getByTestId('next-shown')).toContainText(/now|\d\d:\d\d/);
});

test('the focus is set by a click and by keys; back in the middle nothing is kept', async () => {
  const focus = page.getByRole('slider', { name: /^Focus/ });
  const picture = page.getByRole('region', { name: 'Preview' }).getByRole('img', { name: 'Route map' });
  const { width = 0, height = 0 } = (await picture.boundingBox()) ?? {};
  await picture.click({ position: { x: width * 0.2, y: height * 0.9 } });
  await expect.poll(async () => (await file('route-map'))?.focus).toEqual([0.2, 0.9]);
  await focus.press('ArrowRight');
  await focus.press('ArrowUp');
  await expect.poll(async () => (await file('route-map'))?.focus).toEqual([0.22, 0.88]);
  await focus.press('Home');
  await expect.poll(async () => (await file('route-map'))?.focus).toBeUndefined();
});

test('a file that is not there says so; a sound is heard and stands nowhere', async () => {
  await page.goto(server('/library/nothing-of-the-kind'));
  await expect(page.getByText('No such file')).toBeVisible();
  await page.goto(server('/library?kind=sound'));
  await expect(page.getByText('2 files', { exact: true })).toBeVisible();
  await page.locator('[data-media="bell-buoy"]').click();
  await expect(page.getByRole('region', { name: 'Preview' }).locator('audio')).toBeVisible();
  await expect(page.getByRole('region', { name: 'On our screens' })).toHaveCount(0);
  await page.goBack();
  await expect(page.getByText('2 files', { exact: true })).toBeVisible();
});

test('files that screens show too large for them are found, until no screen does', async () => {
  const { edit } = await import('@/services/plan');
  const actor = await ternholm();
  await edit(actor, [
    { kind: 'playlist', id: 'tiny', add: { name: 'Tiny', items: [{ media: 'wall-welcome' }] } },
    {
      ...{ kind: 'screen', id: 'tiny-screen' },
      add: { name: 'Large', site: 'sillarvik', width: 1920, height: 1080, backdrop: { playlist: 'tiny' } },
    },
  ]);
  await page.goto(server('/library?small'));
  await expect(page.locator('[data-media="wall-welcome"]')).toBeVisible();
  const small = page
    .getByRole('group', { name: 'Narrow down' })
    .getByRole('button', { name: /^Too small for its screens/ });
  await expect(small).toHaveAttribute('aria-pressed', 'true');
  await edit(actor, [{ kind: 'screen', id: 'tiny-screen', remove: true }]);
  await page.reload();
  await expect(page.locator('[data-media="wall-welcome"]')).toHaveCount(0);
});

test('a search is kept by a name, found again by everybody, and taken away', async ({ browser }) => {
  await page.goto(server('/library?kind=video'));
  await page.getByLabel('Find media').fill('sea');
  const kept = page.getByRole('group', { name: 'Saved searches' });
  await kept.getByRole('button', { name: 'Save this search' }).click();
  await kept.getByLabel('Name of this search').press('Enter');
  await expect(kept.getByRole('alert')).toBeVisible();
  await kept.getByLabel('Name of this search').fill('Films of the sea');
  await page.keyboard.press('Enter');
  await expect(kept.getByRole('button', { name: 'Films of the sea', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  const other = await browser.newPage();
  await signIn(other, '/library', { email: 'otto@ternholm.example', password: 'lamps-at-dawn' });
  await other.getByRole('button', { name: 'Films of the sea', exact: true }).click();
  await expect(other).toHaveURL(/\/library\?kind=video&find=sea$/);
  await expect(other.getByLabel('Find media')).toHaveValue('sea');
  await other.close();
  await kept.getByRole('button', { name: 'Delete the search Films of the sea' }).click();
  await expect(kept.getByRole('button', { name: 'Films of the sea', exact: true })).toHaveCount(0);
  await expect(kept.getByRole('button', { name: 'Save this search' })).toBeVisible();
});
