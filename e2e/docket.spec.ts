import type { Page } from '@playwright/test';
import { draft, newest, ternholm } from './support/plan';
import { server, signIn } from './support/session';
import { expect, test } from './support/test';

/** Publishing some of the changes, with two people at work: one person's haste must not publish another's unfinished work. */
test.describe.configure({ mode: 'serial' });

const OTTO = { email: 'otto@ternholm.example', password: 'lamps-at-dawn' };

let page: Page;
let number = 0;
/** How many screens there are: another spec on this instance may have added some. */
let all = 0;
test.beforeAll(async ({ browser }) => {
  page = await browser.newPage();
  await signIn(page);
  const ottos = await (await browser.newContext()).newPage();
  await signIn(ottos, '/', OTTO);
  const { edit } = await import('@/services/plan');
  const { editions } = await import('@/services/editions');
  const { rows } = await import('@/database');
  const network = await ternholm();
  number = (await editions(network))[0]?.number ?? 0;
  const people = await rows<{ id: string; name: string }>('SELECT id, name FROM people WHERE network_id = $1', [
    network.networkId,
  ]);
  const as = (name: string) => ({ ...network, name, personId: people.find((one) => one.name === name)?.id ?? null });
  const { screens } = await draft();
  const [hall] = screens;
  all = screens.length;
  await edit(as('Otto Brekke'), [
    { kind: 'playlist', id: 'half-done', add: { name: 'Half done', items: [{ media: 'route-map' }] } },
    {
      kind: 'booking',
      id: 'half-done',
      add: {
        ...{ name: 'Half done', content: { playlist: 'half-done' }, where: 'all', priority: 5, when: {} },
        created: new Date().toISOString(),
      },
    },
  ]);
  await edit(as('Ida Lunde'), [{ kind: 'screen', id: hall?.id ?? '', set: { name: 'Grand hall' } }]);
  await ottos.close();
});
test.afterAll(() => page.close());

const entry = (name: string) => page.getByTestId('change').filter({ hasText: name });
const box = (name: string, kind: string) =>
  page
    .getByTestId('change')
    .filter({ hasText: kind })
    .getByRole('checkbox', { name: `Publish ${name}` });

test('the docket shows who changed what, and each change leads to its place', async () => {
  await page.goto(server('/publish'));
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(`3 changes since edition ${number}`);
  await expect(entry('Grand hall')).toContainText('Ida Lunde');
  await expect(entry('Half done')).toHaveCount(2);
  await entry('Grand hall').getByRole('link', { name: 'Grand hall' }).click();
  await expect(page.getByRole('dialog').getByRole('heading', { name: 'Grand hall' })).toBeVisible();
  await page.goBack();
});

test('what a chosen change needs goes along, and says so', async () => {
  await page.getByRole('group', { name: 'Changes to publish' }).getByRole('button', { name: 'None' }).click();
  await expect(page.locator('button[data-main]')).toBeDisabled();
  await box('Half done', 'booking').check();
  await expect(page.getByText('included, because booking “Half done” needs it')).toBeVisible();
  await expect(box('Half done', 'playlist')).toBeChecked();
  await expect(page.getByRole('button', { name: /^Publish 2 of 3 changes as edition/ })).toBeEnabled();
  await expect(page.getByText('1 change stays here as a draft.')).toBeVisible();
});

test("one's own are published, by keys; another's stay in the docket and on no screen", async () => {
  const yours = page.getByRole('group', { name: 'Changes to publish' }).getByRole('button', { name: 'Yours 1' });
  await yours.focus();
  await page.keyboard.press('Enter');
  await expect(yours).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('p');
  await expect(
    page.getByRole('button', { name: `Publish 1 of 3 changes as edition ${number + 1} to 0 screens` }),
  ).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByText(`Edition ${number + 1} is published.`)).toBeVisible();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(`2 changes since edition ${number + 1}`);
  await expect(page.getByRole('complementary', { name: 'Editions' })).toContainText('other changes were left out');
  const { publishedPlan } = await import('@/services/editions');
  const published = await publishedPlan(await ternholm());
  expect(published?.plan.bookings.some(({ id }) => id === 'half-done')).toBe(false);
  expect(published?.plan.screens[0]?.name).toBe('Grand hall');
});

test('a change made by another person during the choice is not published unseen', async () => {
  await page.getByRole('group', { name: 'Changes to publish' }).getByRole('button', { name: 'None' }).click();
  await box('Half done', 'playlist').check();
  const { edit } = await import('@/services/plan');
  await edit(await ternholm(), [{ kind: 'booking', id: 'half-done', set: { priority: 4 } }]);
  await edit(await ternholm(), [{ kind: 'playlist', id: 'later', add: { name: 'Later', items: [] } }]);
  await expect(entry('Later')).toBeVisible();
  await expect(box('Later', 'playlist')).not.toBeChecked();
  await expect(page.getByRole('button', { name: /^Publish 1 of 3 changes/ })).toBeEnabled();
});

test('a few are taken back as they were published, and undo brings them again', async () => {
  await page.getByRole('group', { name: 'Changes to publish' }).getByRole('button', { name: 'None' }).click();
  await box('Half done', 'playlist').check();
  await page.getByRole('button', { name: 'Discard 1 change' }).click();
  // The booking shows the playlist: it goes with it.
  await expect(page.getByText('Discarded: 2 changes. Ctrl Z brings them back.')).toBeVisible();
  await expect(entry('Half done')).toHaveCount(0);
  expect((await draft()).playlists.some(({ id }) => id === 'half-done')).toBe(false);
  await page.keyboard.press('Control+z');
  await expect(entry('Half done')).toHaveCount(2);
  expect((await draft()).bookings.find(({ id }) => id === 'half-done')?.priority).toBe(4);
});

test('what looks different is seen before it is out: by day, by week, on other days, by keys', async () => {
  const { edit } = await import('@/services/plan');
  await edit(await ternholm(), [
    {
      kind: 'booking',
      id: 'for-advent',
      add: {
        ...{ name: 'For Advent', content: { media: 'route-map' }, where: 'all', priority: 5 },
        created: new Date().toISOString(),
        when: { from: '2027-12-05', to: '2027-12-05', windows: [['10:00', '12:00']] },
      },
    },
  ]);
  await page.getByRole('group', { name: 'Changes to publish' }).getByRole('button', { name: 'None' }).click();
  await box('For Advent', 'booking').check();
  const glass = page.getByRole('region', { name: 'On the screens' });
  await expect(glass.getByRole('status')).toContainText('0 screens look different');
  await expect(glass).toContainText(`${all} screens receive the edition and show the same in this time`);
  await glass.getByRole('textbox', { name: 'Other days' }).fill('on some day');
  await expect(glass.getByText('“on some day” isn’t understood')).toBeVisible();
  await glass.getByRole('textbox', { name: 'Other days' }).fill('5 to 6 Dec 2027');
  await expect(glass.getByRole('status')).toContainText(`${all} screens look different from Sun 5 Dec`);
  const ruler = glass.getByRole('slider', { name: 'Moment of the comparison' });
  await ruler.focus();
  await page.keyboard.press('Home');
  const first = glass.getByTestId('alike').first();
  await expect(first.getByTestId('at-cursor')).toHaveText('No difference at this time.');
  await page.keyboard.press('PageDown');
  // Where it is on first: the clocks of the sites differ.
  await expect(glass.getByTestId('at-cursor').filter({ hasText: 'For Advent' })).not.toHaveCount(0);
  await expect(ruler).toHaveAttribute('aria-valuetext', 'Sun 5 Dec 2027, 09:00');
  await expect(page.getByTestId('moment')).toHaveText('09:00');
  await first.getByText(/in words/i).click();
  await expect(first.getByRole('list')).toContainText('For Advent, was');
  await page.keyboard.press('Escape');
});

test('new problems of a change are listed before it is out, apart from older ones, and fixed there', async () => {
  const { edit } = await import('@/services/plan');
  const add = { content: { media: 'route-map' }, where: 'all', priority: 5, created: '2026-01-01T00:00:00Z', when: {} };
  await edit(await ternholm(), [
    { kind: 'booking', id: 'one-of-two', add: { name: 'One of two', ...add } },
    { kind: 'booking', id: 'two-of-two', add: { name: 'Two of two', ...add } },
  ]);
  await page.reload();
  await expect(entry('Two of two')).toBeVisible();
  await page.getByRole('group', { name: 'Changes to publish' }).getByRole('button', { name: 'None' }).click();
  await box('One of two', 'booking').check();
  const preflight = page.getByRole('region', { name: 'Preflight', exact: true });
  await expect(preflight.getByRole('status')).toContainText('in the next seven days');
  await expect(preflight).not.toContainText('Two of two');
  await box('Two of two', 'booking').check();
  const clash = preflight.locator('[data-finding="clash"]').filter({ hasText: 'Two of two' });
  await expect(clash).toContainText('One of two');
  await clash.getByRole('button', { name: '“Two of two” ahead of “One of two”' }).click();
  await expect(clash).toHaveCount(0);
});

test('errors of a change stop it, until they are fixed or you tick that they may go out', async () => {
  const { edit } = await import('@/services/plan');
  const add = { content: { media: 'route-map' }, priority: 1, created: '2026-01-01T00:00:00Z', when: {} };
  await edit(await ternholm(), [
    { kind: 'booking', id: 'nowhere', add: { name: 'Nowhere', where: 'no-such-tag', ...add } },
  ]);
  await expect(entry('Nowhere')).toBeVisible();
  await page.getByRole('group', { name: 'Changes to publish' }).getByRole('button', { name: /^All/ }).click();
  const preflight = page.getByRole('region', { name: 'Preflight', exact: true });
  const error = preflight.locator('[data-finding="no screen"]');
  await expect(error).toContainText('“Nowhere” reaches no screen');
  const publish = page.getByRole('button', { name: /^Publish edition \d+ to/ });
  await expect(page.getByText('These changes bring 1 error')).toBeVisible();
  await expect(publish).toBeDisabled();
  const anyway = page.getByRole('checkbox', { name: 'Publish it anyway' });
  await anyway.check();
  await expect(publish).toBeEnabled();
  // Another error is another question.
  await edit(await ternholm(), [
    { kind: 'booking', id: 'nowhere-too', add: { name: 'Nowhere too', where: 'no-such-tag', ...add } },
  ]);
  await expect(page.getByText('These changes bring 2 errors')).toBeVisible();
  await expect(publish).toBeDisabled();
  await edit(await ternholm(), [{ kind: 'booking', id: 'nowhere-too', remove: true }]);
  await expect(error).toHaveCount(1);
  await error.getByRole('button', { name: 'Put “Nowhere” on hold' }).click();
  await expect(error).toHaveCount(0);
  await expect(publish).toBeEnabled();
});

test('a press waits for what preflight finds: an error that is not known yet stops it, too', async () => {
  const { edit } = await import('@/services/plan');
  const actor = await ternholm();
  const out = await newest();
  const publish = page.getByRole('button', { name: /^Publish edition \d+ to/ });
  await expect(publish).toBeEnabled();
  await page.evaluate(() => {
    const post = Worker.prototype.postMessage;
    const held: (() => void)[] = [];
    Worker.prototype.postMessage = function (this: Worker, message: { question?: { kind: string } }) {
      if (message.question?.kind === 'findings') held.push(() => post.call(this, message));
      else post.call(this, message);
    } as typeof post;
    Object.assign(window, {
      lookAhead: () => {
        Worker.prototype.postMessage = post;
        for (const go of held) go();
      },
    });
  });
  await edit(actor, [{ kind: 'booking', id: 'nowhere', set: { onHold: false, name: 'Not anywhere' } }]);
  await expect(entry('Not anywhere')).toBeVisible();
  await publish.click();
  await expect(page.getByRole('button', { name: 'Checking first…' })).toBeDisabled();
  await page.evaluate(() => (window as unknown as { lookAhead: () => void }).lookAhead());
  await expect(page.getByText('Nothing went out: “Not anywhere” reaches no screen')).toBeVisible();
  await expect(publish).toBeDisabled();
  expect(await newest()).toEqual(out);
  await edit(actor, [{ kind: 'booking', id: 'nowhere', set: { onHold: true } }]);
  await expect(publish).toBeEnabled();
});

test('changes that can’t be checked stop one press, and the next one publishes them', async () => {
  await page.getByRole('group', { name: 'Changes to publish' }).getByRole('button', { name: /^All/ }).click();
  await page.getByLabel('Note').fill('Winter timetable');
  const out = await newest();
  // What looks ahead dies of each question.
  await page.evaluate(() => {
    const post = Worker.prototype.postMessage;
    Worker.prototype.postMessage = function (this: Worker, message: { question?: { kind: string } }) {
      if (message.question?.kind === 'findings') setTimeout(() => this.dispatchEvent(new ErrorEvent('error')));
      else post.call(this, message);
    } as typeof post;
    Object.assign(window, { mend: () => (Worker.prototype.postMessage = post) });
  });
  // Another plan than the one whose findings are known.
  await (
    await import('@/services/plan')
  ).edit(await ternholm(), [{ kind: 'booking', id: 'nowhere', set: { name: 'Held back' } }]);
  await expect(entry('Held back')).toBeVisible();
  const publish = page.getByRole('button', { name: new RegExp(`^Publish edition \\d+ to ${all} screens$`) });
  await publish.click();
  await expect(page.getByText('couldn’t be checked. Press again')).toBeVisible();
  expect(await newest()).toEqual(out);
  await publish.click();
  await expect(page.getByText(`Edition ${number + 2} is published.`)).toBeVisible();
  await page.evaluate(() => (window as unknown as { mend: () => void }).mend());
});

test('an edition says what it is for, and any two are compared by what they show', async () => {
  await expect(page.getByRole('complementary', { name: 'Editions' })).toContainText('Winter timetable');
  await page.getByRole('button', { name: `Compare edition ${number + 1}` }).press('Enter');
  const compared = page.getByRole('region', { name: 'Editions compared' });
  await expect(compared).toBeFocused();
  await expect(compared.getByRole('heading')).toHaveText(`Edition ${number + 2} against edition ${number + 1}`);
  await expect(compared.getByRole('status')).toContainText(`${all} screens look different`);
  await compared.getByLabel('Compare', { exact: true }).selectOption(String(number + 2));
  await expect(compared.getByRole('status')).toContainText('0 screens look different');
  await compared.getByRole('button', { name: 'Close' }).click();
  await expect(compared).toHaveCount(0);
});
