import { expect, type Locator, type Page } from '@playwright/test';

export const IDA = { email: 'ida@ternholm.example', password: 'lamps-at-dusk' };

/** Where the instance answers. */
export const server = (path = '') => `${process.env.LANTERNPOST_URL ?? ''}${path}`;

/** Signs a person in as a program does; no page is opened. The form itself is walked through in `people.spec.ts`. */
export async function openSession(page: Page, person = IDA): Promise<void> {
  const answer = await page.request.post(server('/api/session'), { data: person });
  expect(answer.status()).toBe(200);
}

/** Signs a person in, and opens a page. */
export async function signIn(page: Page, path = '/', person = IDA): Promise<void> {
  await openSession(page, person);
  await page.goto(server(path));
  await expect(page.getByTestId('docket')).toBeVisible();
}

/** Signs a person in by the form. */
export async function signInByForm(page: Page, person = IDA): Promise<void> {
  await page.goto(server('/sign-in'));
  await page.getByLabel('E-mail').fill(person.email);
  await page.getByLabel('Password').fill(person.password);
  await page.getByRole('button', { name: 'Log in' }).click();
  await expect(page.getByTestId('docket')).toBeVisible();
}

/** Goes to a place by the bar, as people do. */
export async function goTo(page: Page, place: 'Now' | 'Library' | 'Playlists' | 'Plan' | 'Screens'): Promise<void> {
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: place }).click();
  await expect(page.getByRole('heading', { level: 1, name: place })).toBeAttached();
}

/** Chooses a playlist or a file in a field that finds as you type: by its name and Enter. */
export async function pick(field: Locator, value: string, name: string): Promise<void> {
  await press(field, value, name);
  await expect(field).toHaveValue(name);
}

/** The same, where the field disappears or is emptied after the choice. */
export async function press(field: Locator, value: string, name: string): Promise<void> {
  await field.fill(name);
  const choice = field.page().locator(`[data-choice="${value}"]`);
  // A recent choice is listed twice until the list has caught up with the typed text.
  await expect(choice).toHaveCount(1);
  await expect(choice).toHaveAttribute('data-focus', '');
  await field.press('Enter');
}
