import { FILES, mixedFolder } from './support/folder';
import { draft } from './support/plan';
import { goTo, signIn } from './support/session';
import { expect, test } from './support/test';

test('a folder of files of all kinds at once: each is added or refused with a sentence, none is lost, and other work goes on', async ({
  page,
}) => {
  test.setTimeout(1_200_000);
  const { path, count, names, refused } = await mixedFolder();
  expect(count).toBe(FILES);
  await signIn(page, '/library');
  const before = new Set((await draft()).media.map(({ id }) => id));
  await page.getByTestId('folder').setInputFiles(path);
  const tray = page.getByTestId('uploads');
  await expect(tray.getByRole('heading', { name: new RegExp(`of ${FILES} files`) })).toBeVisible();

  // Other work goes on: a booking is made while the files come in.
  await goTo(page, 'Plan');
  await page.getByRole('button', { name: 'New booking' }).click();
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Name').fill('While they come');
  await sheet.getByLabel('Where').fill('hall');
  await sheet.getByLabel('When').fill('weekends 10 to 18');
  await page.keyboard.press('Escape');
  await goTo(page, 'Library');

  await expect(tray.getByRole('heading')).toContainText(`, ${refusedAtOnce(refused)} not accepted`, {
    timeout: 600_000,
  });
  await expect(tray.getByText(/being processed/)).toHaveCount(0, { timeout: 600_000 });
  const made = async () => (await draft()).media.filter(({ id }) => !before.has(id)).map(({ name }) => name);
  await expect.poll(async () => (await made()).length, { timeout: 600_000 }).toBe(names.length);
  expect((await made()).sort()).toEqual([...names].sort());
  // What was not taken is there by its name, with a sentence; nothing else is.
  const rows = tray.getByRole('list', { name: 'Each file' }).getByRole('listitem');
  await expect(rows.filter({ has: page.getByRole('alert') })).toHaveCount(refused.length);
  const told = await rows.filter({ has: page.getByRole('alert') }).allInnerTexts();
  for (const file of refused) {
    const title = file.replace(/\.[^.]*$/, '');
    expect(told.filter((text) => text.includes(title)).length).toBeGreaterThan(0);
  }
});

/** Those of which the first bytes, or their absence, tell already that they can’t be taken. */
const refusedAtOnce = (refused: readonly string[]) => refused.filter((name) => !name.startsWith('Half a')).length;
