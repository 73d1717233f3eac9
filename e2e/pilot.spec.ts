import type { Page } from '@playwright/test';
import { HOUR, MINUTE } from '@/core/instant';
import { given, newest, planned, ternholm } from './support/plan';
import { atThePier, pierBackdrop } from './support/pier';
import { workerPid } from './support/processes';
import { server, signIn } from './support/session';
import { expect, test } from './support/test';

/** An edition that some screens receive first, and one that goes by the clock at each site: from the docket to a real player. */
let page: Page;
let player: Page;
atThePier((pier) => ({ page, player } = pier));
test.beforeAll(() => change('weather-outlook'));

const stage = () => player.locator('#stage');
const list = () => page.getByRole('region', { name: 'Planned' });
/** What the pier shows by the draft, and a hall far from it. */
const change = async (media: string) => {
  await pierBackdrop(media);
  const { edit } = await import('@/services/plan');
  await edit(await ternholm(), [{ kind: 'screen', id: 'skerrow-hall', set: { backdrop: { media } } }]);
};
/** Begins a pilot on the pier, for a minute or until it is approved. */
const tryIt = async (minutes?: string, time?: string) => {
  await page.goto(server('/publish'));
  await page.getByRole('button', { name: 'On some screens first…' }).click();
  await page.getByRole('combobox', { name: 'Where' }).fill('pier-end');
  if (minutes !== undefined) {
    await page.getByLabel(time === undefined ? 'as soon as these screens have been lit' : 'at a set time, if').check();
    await page.getByLabel('Minutes', { exact: true }).fill(minutes);
  }
  if (time !== undefined) await page.getByLabel('Time for the others').fill(time);
  await page.getByRole('button', { name: 'Try it on 1 screen first' }).click();
  await expect(page.getByText('The pilot is on 1 screen. The others keep what they have.')).toBeVisible();
};

test('a wrong screen or minute gets a message, and nothing goes out', async () => {
  await page.goto(server('/publish'));
  await page.getByRole('button', { name: 'On some screens first…' }).click();
  const first = page.getByRole('button', { name: /^Try it on .* first$/ });
  await expect(first).toBeDisabled();
  await page.getByRole('combobox', { name: 'Where' }).fill('pier-end');
  await expect(first).toBeEnabled();
  await page.getByLabel('at a set time, if').check();
  await expect(first).toBeDisabled();
  await page.getByLabel('as soon as these screens have been lit').check();
  await page.getByLabel('Minutes', { exact: true }).fill('soon');
  await expect(page.getByText('Write whole minutes, 1 to 1440.')).toBeVisible();
  await expect(first).toBeDisabled();
  await page.getByLabel('Minutes', { exact: true }).fill('5');
  await page.getByRole('combobox', { name: 'Where' }).fill('screen:sillarvik-hall');
  await first.click();
  await expect(page.getByText('It changes nothing on these screens')).toBeVisible();
  await expect(stage()).toHaveAttribute('data-media', 'line-flag');
});

test('it is on the pilot alone, Now shows both as they are, and a person gives it to the others', async () => {
  const before = await given();
  await tryIt();
  await expect(stage()).toHaveAttribute('data-media', 'weather-outlook');
  await expect(list()).toContainText('Playing on 1 of 1 screen');
  await expect(list()).toContainText('The other screen gets it when you approve it.');
  expect((await given()).get('skerrow-hall')).toBe(before.get('skerrow-hall'));
  await page.goto(server('/'));
  await expect(page.getByTestId('is-tried')).toHaveText(/^1 screen has a newer edition, which is being piloted\./);
  await expect(page.locator('[data-screen="pier-end"]')).toHaveAttribute('data-media', 'weather-outlook');
  await expect(page.locator('[data-screen="skerrow-hall"]')).not.toHaveAttribute('data-media', 'weather-outlook');
  await page.locator('[data-screen="pier-end"]').click();
  await expect(page.getByRole('complementary')).toContainText('Sea weather');
  await page.goto(server('/publish'));
  await list().getByRole('button', { name: 'Publish it on the other 1 screen' }).click();
  await expect(page.getByText(/^Edition \d+ is published on all screens\.$/)).toBeVisible();
  expect((await given()).get('skerrow-hall')).not.toBe(before.get('skerrow-hall'));
  await expect(list()).toHaveCount(0);
});

test('another person takes it back: the pilot shows what it showed, and the changes wait again', async ({
  browser,
}) => {
  await change('route-map');
  await tryIt('5');
  await expect(stage()).toHaveAttribute('data-media', 'route-map');
  const other = await browser.newPage();
  await signIn(other, '/publish', { email: 'otto@ternholm.example', password: 'lamps-at-dawn' });
  const theirs = other.getByRole('region', { name: 'Planned' });
  await expect(theirs).toContainText('All of these are lit. The other screen gets it in 5 minutes, if they stay so.');
  await theirs.getByRole('button', { name: 'Cancel the pilot' }).click();
  await expect(other.getByText(/^Cancelled: 1 screen goes back to edition \d+\./)).toBeVisible();
  await expect(stage()).toHaveAttribute('data-media', 'weather-outlook');
  await expect(page.getByRole('heading', { name: /^2 changes since edition/ })).toBeVisible();
  await other.close();
});

test('a pilot that tells an error stops it, and says why', async () => {
  await tryIt('5');
  await expect(stage()).toHaveAttribute('data-media', 'route-map');
  await expect(list()).toContainText('All of these are lit.');
  const { rows } = await import('@/database');
  const { heartbeat, flushHeartbeats } = await import('@/services/screens');
  const [found] = await rows<{ id: string; report: Parameters<typeof heartbeat>[1] }>(
    "SELECT p.id, p.report FROM players p JOIN plan_objects s ON s.id = p.screen_id WHERE s.slug = 'pier-end'",
  );
  const { networkId } = await ternholm();
  const screen = { id: 'pier-end', name: 'Pier end', width: 1920, height: 1080 };
  const errors = [{ at: Date.now(), message: 'The picture came damaged' }];
  // A person on another page gets the message too.
  await page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name: 'Now' }).click();
  // Said with each heartbeat, as a player does: the real one beats beside it, and says nothing of it.
  await expect(async () => {
    heartbeat({ id: found?.id ?? '', networkId, screen, part: 1 }, { ...found?.report, errors } as never);
    await flushHeartbeats();
    await expect(page.getByText('The pilot was stopped: Pier end: The picture came damaged')).toBeVisible({
      timeout: 2000,
    });
  }).toPass();
  await expect(page.getByTestId('is-tried')).toContainText('was stopped: Pier end: The picture came damaged');
  await page.getByTestId('docket').click();
  await expect(list().getByRole('alert')).toContainText('Pier end: The picture came damaged');
  await expect(list().getByRole('button', { name: 'Publish it everywhere anyway' })).toBeVisible();
  await list()
    .getByRole('button', { name: /^Cancel the pilot and go back to edition/ })
    .click();
  await expect(stage()).toHaveAttribute('data-media', 'weather-outlook');
});

test('with a time, its screens pass, the others hear of it, and it can still be taken back', async () => {
  await tryIt('1', 'tomorrow 06:00');
  await expect(stage()).toHaveAttribute('data-media', 'route-map');
  await expect(list()).toContainText(
    /The other screen gets it on \w{3} \d+ \w{3}, 06:00, if they stay so for (1 minute|\d+ seconds?) more\./,
  );
  const { rows } = await import('@/database');
  await rows(
    "UPDATE editions SET pilot = jsonb_set(pilot, '{litSince}', to_jsonb($1::text)) WHERE pilot IS NOT NULL AND number IS NULL",
    [new Date(Date.now() - 2 * MINUTE).toISOString()],
  );
  await expect(list()).toContainText(
    /Passed: 1 minute without an error\. The other screen gets it on .*, 06:00, unless one/,
  );
  // What comes next elsewhere is known from then on.
  await expect(page.getByLabel('Looking at').locator('option', { hasText: /^planned, .*, 06:00$/ })).toHaveCount(1);
  await list().getByRole('button', { name: 'Cancel the pilot' }).click();
  await expect(stage()).toHaveAttribute('data-media', 'weather-outlook');
  await expect(list()).toHaveCount(0);
});

test('its time is over as the worker is killed: the others get it once, when one runs again', async () => {
  const before = (await newest())?.number ?? 0;
  await tryIt('1');
  await expect(list()).toContainText('All of these are lit.');
  const { rows } = await import('@/database');
  process.kill(workerPid(), 'SIGKILL');
  // They have been lit for that minute.
  await rows(
    "UPDATE editions SET pilot = jsonb_set(pilot, '{litSince}', to_jsonb($1::text)) WHERE pilot IS NOT NULL AND number IS NULL",
    [new Date(Date.now() - 2 * MINUTE).toISOString()],
  );
  await expect(page.getByText(/^Edition \d+ is out on all screens, after its pilot on 1 screen\.$/)).toBeVisible({
    timeout: 120_000,
  });
  await expect.poll(async () => (await newest())?.number).toBe(before + 1);
  await expect(list()).toHaveCount(0);
  expect(await planned()).toEqual([]);
  expect(await newest()).toMatchObject({ number: before + 1 });
});

test('a time at each site is planned in words, marked for each clock, and moved', async () => {
  await change('line-flag');
  await page.goto(server('/publish'));
  await page.getByLabel('When').fill('tomorrow 06:00');
  await page.getByLabel('By the clock at each site').check();
  await expect(page.getByText(/, 06:00: from \w{3} \d+ \w{3}, 05:00 to 07:00 on your clock$/)).toBeVisible();
  await page.getByRole('button', { name: /^Plan it for \w{3} \d+ \w{3}, 06:00 at each site to 2 screens$/ }).click();
  await expect(page.getByText(/^Planned. It goes out .*, 06:00 at each site\.$/)).toBeVisible();
  const { plannedEditions } = await import('@/services/editions');
  const [planned] = await plannedEditions(await ternholm());
  const [first] = planned?.steps ?? [];
  expect(Date.parse(planned?.at ?? '') - Date.parse(first?.at ?? '')).toBe(2 * HOUR);
  await list().getByRole('button', { name: 'View on Now' }).click();
  await expect(page.getByTitle(/: a planned edition goes out/)).toHaveCount(3);
  await expect(page.getByRole('slider', { name: 'Moment' }).getByText('planned')).toHaveCount(1);
  await expect(page.getByLabel('Looking at').locator('option:checked')).toHaveText(/^planned, .*, 06:00 at each site$/);
  await page.goto(server('/publish'));
  await list().getByRole('button', { name: 'Move…' }).click();
  await list().getByLabel('To').fill('tomorrow 08:00');
  await list().getByRole('button', { name: 'Move it' }).click();
  await expect(list()).toContainText('08:00');
  await list().getByRole('button', { name: 'Cancel this edition' }).click();
  await expect(list()).toHaveCount(0);
});

test('an earlier edition is looked at, at this moment and another, and left by looking at now', async () => {
  const number = (await newest())?.number ?? 0;
  await change('line-flag');
  await page.goto(server('/publish'));
  await page.getByRole('button', { name: /^Publish edition/ }).click();
  await expect(stage()).toHaveAttribute('data-media', 'line-flag');
  await page.getByRole('button', { name: `View edition ${number}` }).click();
  const tile = page.locator('[data-screen="pier-end"]');
  await expect(page.getByTestId('by')).toHaveText(`from edition ${number}, whenever it was published`);
  await expect(tile).toHaveAttribute('data-media', 'route-map');
  await page.getByRole('slider', { name: 'Moment' }).press('PageDown');
  await expect(tile).toHaveAttribute('data-media', 'route-map');
  await expect(page.getByLabel('Looking at').locator('option:checked')).toHaveText(`edition ${number}`);
  await page.getByRole('button', { name: 'Back to now' }).click();
  await expect(tile).toHaveAttribute('data-media', 'line-flag');
  await expect(page.getByTestId('by')).toHaveCount(0);
});
