import type { Page } from '@playwright/test';
import { atThePier, pierBackdrop, shownAt } from './support/pier';
import { booked, draft, given, newest, planned, ternholm } from './support/plan';
import { answersAgain, gatewayPid, killPostgres, postmasterFile, webPid } from './support/processes';
import { server } from './support/session';
import { expect, test } from './support/test';

/**
 * Publishing's forms, each with a process killed hard in the middle of it: after the restart it is whole or not at all, and said. What the
 * worker and what compiles leave behind is tried where they are: in planned, pilot, takeovers and killed.
 */
let page: Page;
let player: Page;
// By the gateway, as players are: the web server may be away for it.
atThePier((pier) => ({ page, player } = pier), { by: 'gateway' });

const stage = () => player.locator('#stage');
const list = () => page.getByRole('region', { name: 'Planned' });
const inForce = () => page.getByRole('region', { name: 'In force: Ice on the pier' });
const ice = async () => (await draft()).bookings.find(({ id }) => id === 'ice');
const killWeb = () => process.kill(webPid(), 'SIGKILL');

/** What the page says about it, wherever it says it. */
const told = () =>
  page
    .getByText(
      /^(?:The server didn’t answer|The database isn’t answering|The connection to the database was cut|This was interrupted)/,
    )
    .first();

/** Presses a button, and kills a process while what was pressed waits to write to the table that it has come to. */
async function brokenOff(button: string | RegExp, table: string, kill: () => void): Promise<void> {
  const postgres = postmasterFile()[0];
  const pressed = page.getByRole('button', { name: button });
  await expect(pressed).toBeEnabled();
  await ternholm();
  const { closeDatabase, database } = await import('@/database');
  const held = await database().transaction();
  await database().query(`LOCK TABLE ${table} IN SHARE MODE`, { transaction: held });
  await pressed.click();
  const waits = `SELECT 1 FROM pg_locks WHERE NOT granted AND relation = '${table}'::regclass`;
  await expect.poll(async () => (await database().query(waits, { transaction: held }))[0].length).toBeGreaterThan(0);
  kill();
  // It is said at once, wherever on the page.
  await expect(told()).toBeVisible();
  // Where PostgreSQL itself is killed, this is broken off with all the rest.
  await held.rollback().catch(() => undefined);
  await closeDatabase();
  if (kill === killPostgres) await expect.poll(() => postmasterFile()[0] ?? postgres).not.toBe(postgres);
  await answersAgain(page);
}

test('the web server, as one publishes: no edition is there, it is said, and it can be published', async () => {
  const before = (await newest())?.number ?? 0;
  await pierBackdrop('weather-outlook');
  await page.goto(server('/publish'));
  await brokenOff(/^Publish edition/, 'programs', killWeb);
  expect((await newest())?.number).toBe(before);
  await expect(stage()).toHaveAttribute('data-media', 'line-flag');
  await page.reload();
  await page.getByRole('button', { name: /^Publish edition/ }).click();
  await expect(stage()).toHaveAttribute('data-media', 'weather-outlook');
  expect((await newest())?.number).toBe(before + 1);
});

test('PostgreSQL, as one plans: nothing is planned, it is said, and it can be planned', async () => {
  await pierBackdrop('route-map');
  await page.goto(server('/publish'));
  await page.getByLabel('When').fill('in 2 hours');
  await brokenOff(/^Plan it for/, 'programs', killPostgres);
  expect(await planned()).toEqual([]);
  await page.reload();
  await page.getByLabel('When').fill('in 2 hours');
  await page.getByRole('button', { name: /^Plan it for/ }).click();
  await expect(list().getByRole('listitem')).toHaveCount(1);
  expect(await planned()).toHaveLength(1);
});

test('PostgreSQL and the gateway, before the instant: the screen switches on it, and it gets its number once', async () => {
  const before = (await newest())?.number ?? 0;
  await list().getByRole('button', { name: 'Move…' }).click();
  const form = list().getByRole('form');
  await form.getByLabel('To').fill('in 25 seconds');
  await form.getByLabel('To').press('Enter');
  await expect(form).toHaveCount(0);
  await expect.poll(async () => (await planned())[0]?.ready).toBe(1);
  const at = Date.parse((await planned())[0]?.at ?? '');
  const { closeDatabase } = await import('@/database');
  await closeDatabase();
  killPostgres();
  process.kill(gatewayPid(), 'SIGKILL');
  await expect(stage()).toHaveAttribute('data-media', 'route-map');
  expect(Math.abs((await shownAt(player, 'route-map')) - at)).toBeLessThan(500);
  await answersAgain(page);
  await expect.poll(async () => (await newest())?.number).toBe(before + 1);
  expect(await planned()).toEqual([]);
});

test('the web server, as a pilot begins, and PostgreSQL, as it ends: whole or not at all', async () => {
  await pierBackdrop('weather-outlook');
  const { edit } = await import('@/services/plan');
  await edit(await ternholm(), [
    { kind: 'screen', id: 'skerrow-hall', set: { backdrop: { media: 'weather-outlook' } } },
  ]);
  const [before, halls] = [(await newest())?.number ?? 0, (await given()).get('skerrow-hall')];
  const choosePier = async () => {
    await page.goto(server('/publish'));
    await page.getByRole('button', { name: 'On some screens first…' }).click();
    await page.getByRole('combobox', { name: 'Where' }).fill('pier-end');
  };
  await choosePier();
  await brokenOff('Try it on 1 screen first', 'programs', killWeb);
  expect(await planned()).toEqual([]);
  await choosePier();
  await page.getByRole('button', { name: 'Try it on 1 screen first' }).click();
  await expect(stage()).toHaveAttribute('data-media', 'weather-outlook');
  // The worker has written that it is lit: only the press has anything to write.
  await expect.poll(async () => (await planned())[0]?.pilot?.litSince).toMatch(/^20/);
  await brokenOff('Publish it on the other 1 screen', 'editions', killPostgres);
  expect(await planned()).toHaveLength(1);
  expect([(await newest())?.number, (await given()).get('skerrow-hall')]).toEqual([before, halls]);
  await expect(stage()).toHaveAttribute('data-media', 'weather-outlook');
  await page.reload();
  await list().getByRole('button', { name: 'Publish it on the other 1 screen' }).click();
  await expect(list()).toHaveCount(0);
  expect((await newest())?.number).toBe(before + 1);
  expect((await given()).get('skerrow-hall')).not.toBe(halls);
});

test('the web server, as one fires: nothing is in force; the gateway right after: the screen shows it when it is back', async () => {
  await booked('ice', {
    ...{ name: 'Ice on the pier', content: { media: 'line-flag' }, where: 'pier-end', when: {}, priority: 5 },
    ...{ takeover: true, onHold: true, prepared: { words: 'Salt is in the shed.', lasts: 3_600_000 } },
  });
  await page.goto(server('/takeovers'));
  const row = page
    .getByRole('listitem')
    .filter({ has: page.getByRole('heading', { name: 'Ice on the pier', exact: true }) });
  const ask = async () => {
    await row.getByRole('button', { name: /^Activate/ }).click();
    await expect(page.getByRole('button', { name: 'Activate on 1 screen' })).toBeVisible();
  };
  await ask();
  await brokenOff('Activate on 1 screen', 'firings', killWeb);
  expect(await ice()).toMatchObject({ onHold: true });
  await expect(stage()).toHaveAttribute('data-media', 'weather-outlook');
  await page.reload();
  await ask();
  await page.getByRole('button', { name: 'Activate on 1 screen' }).click();
  await expect(inForce()).toBeVisible();
  process.kill(gatewayPid(), 'SIGKILL');
  await expect(stage()).toHaveAttribute('data-media', 'line-flag');
});

test('PostgreSQL, at the all-clear: it is still in force, it is said, and it can be given', async () => {
  await brokenOff('All-clear', 'firings', killPostgres);
  await page.reload();
  await expect(inForce()).toBeVisible();
  await expect(stage()).toHaveAttribute('data-media', 'line-flag');
  await inForce().getByRole('button', { name: 'All-clear' }).click();
  await expect(inForce()).toHaveCount(0);
  await expect(stage()).toHaveAttribute('data-media', 'weather-outlook');
});
