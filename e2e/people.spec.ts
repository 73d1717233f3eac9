import type { Page } from '@playwright/test';
import { IDA, server, signIn, signInByForm } from './support/session';
import { expect, test } from './support/test';

test.describe.configure({ mode: 'serial' });

const UNA = { email: 'una@ternholm.example', password: 'nets out at noon' };

const openPeople = async (page: Page) => {
  await page.getByRole('button', { name: 'Ida', exact: true }).click();
  await page.getByRole('menuitem', { name: 'People, password' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'People of Ternholm Line' })).toBeVisible();
};
const person = (page: Page, name: string) =>
  page.getByRole('list', { name: 'People' }).getByRole('listitem').filter({ hasText: name });

test('who is invited comes in by a link that works once, and is seen by who invited', async ({ page, browser }) => {
  await signInByForm(page);
  await openPeople(page);
  await page.getByLabel('New person’s name').fill('Una');
  await page.getByLabel('Their e-mail').fill('nowhere');
  await page.getByRole('button', { name: 'Create invitation link' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Write an e-mail address' })).toBeVisible();
  await page.getByLabel('Their e-mail').fill(UNA.email);
  await page.getByRole('button', { name: 'Create invitation link' }).click();
  const link = await page.getByLabel('Link for Una', { exact: true }).inputValue();
  expect(link).toMatch(/\/join#[\w-]{43}$/);
  await expect(person(page, 'Una')).toContainText('(invited as planner)');

  const context = await browser.newContext();
  const una = await context.newPage();
  const requests: string[] = [];
  una.on('request', (request) => requests.push(request.url()));
  await una.goto(link);
  await expect(una.getByRole('heading', { name: 'Ternholm Line' })).toBeVisible();
  await una.getByLabel('Your name').fill('Una Berg');
  await una.getByLabel('Password').fill(UNA.password);
  await una.getByRole('button', { name: 'Join' }).click();
  await expect(una.getByTestId('docket')).toBeVisible();
  // The link's secret is in no address that a server or a proxy sees.
  expect(requests).toContain(server('/join'));
  expect(requests.filter((url) => url.includes(link.split('#')[1] ?? '/'))).toEqual([]);
  // She is there for Ida, who did nothing for it.
  await expect(person(page, 'Una Berg')).toContainText(UNA.email);
  await una.goto('about:blank');
  await una.goto(link);
  await expect(una.getByRole('alert').filter({ hasText: 'This link was used' })).toBeVisible();
  await context.close();
});

test('a planner asks, is sent back with a word, asks again, and is published; another role holds at once', async ({
  page,
  browser,
}) => {
  const context = await browser.newContext();
  const una = await context.newPage();
  await signIn(una, '/', UNA);
  await signIn(page);
  await una.goto(server('/network'));
  await expect(una.getByLabel('Name of the network')).toBeDisabled();
  await una.goto(server('/people'));
  await expect(una.getByText('Your role: Planner.')).toBeVisible();
  await expect(una.getByRole('form', { name: 'Invite a person' })).toHaveCount(0);
  await expect(person(una, 'Ida Lunde')).toContainText('Owner');

  await una.goto(server('/screens?screen=skerrow-hall'));
  await una.getByRole('textbox', { name: 'Name', exact: true }).fill('Hall by the water');
  await una.keyboard.press('Tab');
  await una.goto(server('/publish'));
  await expect(una.getByRole('button', { name: /^Publish edition/ })).toHaveCount(0);
  await una.getByLabel('Note').fill('Its new name');
  await una.getByRole('button', { name: 'Ask to publish 1 change' }).click();
  await expect(una.getByRole('article', { name: 'Your request' })).toContainText('“Its new name”');
  await expect(una.getByRole('button', { name: 'You asked for this' })).toBeDisabled();

  // Wherever Ida is she hears of it, and the way there says so.
  await expect(page.getByText('Una Berg asks you to publish 1 change.')).toBeVisible();
  await expect(page.getByTestId('docket')).toContainText('1 request');
  await page.getByTestId('docket').click();
  const request = page.getByRole('article', { name: 'Request by Una Berg' });
  await request.getByRole('button', { name: 'Send back…' }).click();
  await request.getByLabel('Why, for Una Berg').fill('Hall is enough.');
  await request.getByRole('button', { name: 'Send back', exact: true }).click();
  await expect(request).toHaveCount(0);
  const told = una.getByRole('article', { name: 'Your request' });
  await expect(told).toContainText('Ida Lunde sent it back: “Hall is enough.”');
  await told.getByRole('button', { name: 'Put away' }).click();
  await expect(told).toHaveCount(0);
  await una.getByRole('button', { name: 'Ask to publish 1 change' }).click();
  await request.getByRole('button', { name: 'Choose only these changes' }).click();
  await page.getByRole('button', { name: /^Publish (it|edition)/ }).click();
  await expect(told).toContainText(/Ida Lunde published it with edition \d+\./);

  await una.goto(server('/plan'));
  await expect(una.getByRole('button', { name: 'New booking' })).toBeEnabled();
  await openPeople(page);
  await page.getByRole('combobox', { name: 'Role of Una Berg' }).selectOption('Viewer');
  await expect(una.getByRole('button', { name: 'New booking' })).toBeDisabled();
  await una.goto(server('/publish'));
  await expect(una.getByRole('button', { name: /^Ask to publish/ })).toHaveCount(0);
  await expect(page.getByRole('combobox', { name: 'Role of Ida Lunde' })).toBeDisabled();
  await context.close();
});

test('a password that is changed logs out the other windows, and this one goes on', async ({ page, browser }) => {
  const context = await browser.newContext();
  const other = await context.newPage();
  await signIn(other, '/', UNA);
  await signIn(page, '/people', UNA);
  await expect(page.getByRole('region', { name: 'Where you are logged in' }).getByRole('listitem')).toHaveCount(4);
  const form = page.getByRole('region', { name: 'Your password' });
  await form.getByLabel('Current password').fill('not this one');
  await form.getByLabel('New password').fill('nets in at nine');
  await form.getByRole('button', { name: 'Change it' }).click();
  await expect(form.getByRole('alert')).toContainText('This isn’t your present password');
  await form.getByLabel('Current password').fill(UNA.password);
  await form.getByRole('button', { name: 'Change it' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'Your password is changed' })).toBeVisible();
  UNA.password = 'nets in at nine';
  // The other window notices the end of its stream, and asks who it is.
  await expect(other).toHaveURL(/sign-in/, { timeout: 30_000 });
  await expect(page.getByRole('region', { name: 'Where you are logged in' }).getByRole('listitem')).toHaveCount(1);
  await context.close();
});

test('a removed person is out at once; what was done is listed', async ({ page, browser }) => {
  const context = await browser.newContext();
  const una = await context.newPage();
  await signIn(una, '/', UNA);
  await signIn(page);
  await openPeople(page);
  await person(page, 'Una Berg').getByRole('button', { name: 'Remove Una Berg…' }).press('Enter');
  const sure = page.getByRole('group', { name: 'Remove Una Berg' });
  await expect(sure.getByRole('button', { name: 'Cancel' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(person(page, 'Una Berg').getByRole('button', { name: 'Remove Una Berg…' })).toBeFocused();
  await page.keyboard.press('Enter');
  await sure.getByRole('button', { name: 'Remove Una Berg' }).click();
  await expect(person(page, 'Una Berg')).toHaveCount(0);
  await expect(una).toHaveURL(/sign-in/, { timeout: 30_000 });
  const done = page.getByRole('region', { name: 'What was done' });
  await expect(done.getByRole('listitem').first()).toContainText(`Ida Lunde removed Una Berg (${UNA.email})`);
  await una.getByLabel('E-mail').fill(UNA.email);
  await una.getByLabel('Password').fill(UNA.password);
  await una.getByRole('button', { name: 'Log in' }).click();
  await expect(una.getByRole('alert').filter({ hasText: 'don’t match' })).toBeVisible();
  await context.close();
});

test('without a network the form says so, and what was typed stays', async ({ page, context }) => {
  await page.goto(server('/sign-in'));
  await page.getByLabel('E-mail').fill(IDA.email);
  await page.getByLabel('Password').fill(IDA.password);
  await context.setOffline(true);
  await page.getByRole('button', { name: 'Log in' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'The server didn’t answer' })).toBeVisible();
  await context.setOffline(false);
  await page.getByRole('button', { name: 'Log in' }).click();
  await expect(page.getByTestId('docket')).toBeVisible();
});
