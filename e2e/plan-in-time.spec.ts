import type { Locator, Page } from '@playwright/test';
import ICAL from 'ical.js';
import { airTime, why } from '@/core/forecast';
import { findings } from '@/core/preflight';
import {
  MONTH_WORDS,
  addDays,
  dateOfLocalTime,
  describeWhen,
  formatDate,
  setsOf,
  startOfDate,
  toInstant,
  toLocalTime,
  weekdayIndex,
  zoneTable,
  type LocalDate,
  type LocalTime,
  type SetOfHours,
} from '@/core/when';
import { Operator, letGoAtOnce } from './support/operator';
import { booked, draft } from './support/plan';
import { goTo, pick, server, signIn } from './support/session';
import { expect, test } from './support/test';

/** Where people see and shape time: an operator's tasks, counted, and the strata by pointer and by keys. */

const OSLO = zoneTable('Europe/Oslo');
const today = () => dateOfLocalTime(toLocalTime(OSLO, Date.now()));
const monday = () => addDays(today(), -weekdayIndex(today()));
const HOUR = 3_600_000;

const bar = (page: Page, booking: string, date: LocalDate) => page.locator(`[data-bar^="${booking} ${date} "]`).first();
const bookingNamed = async (name: string) => (await draft()).bookings.find((one) => one.name === name);
/** The one set of hours of a booking. */
const hoursNamed = async (name: string) => setsOf((await bookingNamed(name))?.when ?? {})[0] ?? {};

async function box(target: Locator) {
  // To the middle: at the edge it would be under the ruler, which stays visible.
  await target.evaluate((element) => element.scrollIntoView({ block: 'center' }));
  const found = await target.boundingBox();
  if (!found) throw new Error('not visible');
  return found;
}

/** The place of a time of the shown week within a layer. */
async function placeOf(page: Page, layer: string, date: LocalDate, hours: number) {
  const band = await box(page.locator(`[data-layer="${layer}"]`));
  const share = (date - monday() + hours / 24) / 7;
  return { x: band.x + share * band.width, y: band.y + 6 };
}

test('task: book a playlist for weekday mornings on every hall screen in the north except staff rooms', async ({
  page,
}) => {
  await signIn(page);
  const ida = new Operator(page);
  await ida.click(page.getByRole('link', { name: 'Plan' }));
  await ida.click(page.getByRole('button', { name: 'New booking' }));
  const sheet = page.getByRole('dialog');
  await ida.fill(sheet.getByLabel('Name'), 'Northern mornings');
  await ida.find(sheet.getByLabel('What'), 'playlist:sailings-am', 'Morning sailings');
  for (const tag of ['hall', 'north', 'staff']) await ida.click(sheet.getByRole('button', { name: tag, exact: true }));
  // A second press: not staff.
  await ida.click(sheet.getByRole('button', { name: 'staff', exact: true }));
  await ida.fill(sheet.getByLabel('When'), 'weekdays 05:30–10:00');
  await expect(sheet.getByTestId('next-days')).toBeVisible();
  await ida.click(sheet.getByRole('button', { name: 'Book it' }));
  await expect(page.getByText('Northern mornings is booked as a draft.')).toBeVisible();
  expect(ida.acts).toBeLessThanOrEqual(15);
  expect(await bookingNamed('Northern mornings')).toMatchObject({
    where: 'hall and north and not staff',
    content: { playlist: 'sailings-am' },
    when: { repeat: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR', windows: [['05:30', '10:00']] },
  });
});

test('a phrase with two readings shows both, also after the field is left; the other one is chosen by a press', async ({
  page,
}) => {
  await signIn(page, '/plan');
  await page.getByRole('button', { name: 'New booking' }).click();
  const sheet = page.getByRole('dialog');
  const when = sheet.getByLabel('When', { exact: true });
  await when.fill('weekends 10–16 December 1–20');
  await page.keyboard.press('Tab');
  await expect(when).toHaveValue(/^weekends 10:00–16:00, 1 Dec \d{4} to 20 Dec \d{4}$/);
  await expect(sheet.getByText('can mean different things')).toBeVisible();
  await sheet.getByRole('button', { name: /^weekends 01:00–20:00, 10 Dec/ }).click();
  await expect(when).toHaveValue(/^weekends 01:00–20:00, 10 Dec \d{4} to 16 Dec \d{4}$/);
  await expect(sheet.getByText('can mean different things')).toHaveCount(0);
  await when.fill('weekends 10–16 from 1 to 20 December');
  await page.keyboard.press('Tab');
  await expect(when).toHaveValue(/^weekends 10:00–16:00, 1 Dec \d{4} to 20 Dec \d{4}$/);
});

test('task: why does a screen show what it shows tomorrow at 06:10?', async ({ page }) => {
  await signIn(page);
  await page.getByLabel('Looking at').selectOption('draft');
  const ida = new Operator(page);
  await ida.click(page.getByRole('button', { name: 'Look at another time' }));
  await ida.write('tomorrow 06:10');
  await ida.click(page.locator('[data-screen="sillarvik-hall"]'));
  expect(ida.acts).toBeLessThanOrEqual(4);
  const at = toInstant(OSLO, (startOfDate(addDays(today(), 1)) + (6 + 1 / 6) * HOUR) as LocalTime);
  await expect(page.getByTestId('why')).toHaveText(why(await draft(), 'sillarvik-hall', at).sentence);
});

test('task: make room for a one-off on Wednesday only', async ({ page }) => {
  await signIn(page);
  const wednesday = addDays(monday(), 2);
  const ida = new Operator(page);
  await ida.click(page.getByRole('link', { name: 'Plan' }));
  const nine = await placeOf(page, '3', wednesday, 9);
  const morning = await box(bar(page, 'morning-sailings', wednesday));
  const y = morning.y + morning.height / 2;
  await ida.drag({ x: morning.x + morning.width - 2, y }, { x: nine.x - 2, y });
  await ida.click(page.getByRole('button', { name: 'this day only' }));
  await expect.poll(async () => (await hoursNamed('Morning sailings')).except).toEqual([formatDate(wednesday)]);
  // Layers stand elsewhere once the day is parted: the page has drawn it by then.
  await expect(page.locator(`[data-bar^="morning-sailings ${wednesday} "]`)).toHaveCount(0);
  await ida.drag(await placeOf(page, '5', wednesday, 9), await placeOf(page, '5', wednesday, 10));
  const sheet = page.getByRole('dialog');
  await ida.fill(sheet.getByLabel('Name'), 'Regatta');
  await ida.find(sheet.getByLabel('What'), 'media:route-map', 'Route map');
  await ida.fill(sheet.getByLabel('Where'), 'hall');
  await ida.click(sheet.getByRole('button', { name: 'Book it' }));
  await expect(page.getByText('Regatta is booked as a draft.')).toBeVisible();
  expect(ida.acts).toBeLessThanOrEqual(8);
  const day = formatDate(wednesday);
  expect(await bookingNamed('Regatta')).toMatchObject({
    priority: 5,
    when: { from: day, to: day, windows: [['09:00', '10:00']] },
  });
  const parted = (await draft()).bookings.find((one) => one.name.startsWith('Morning sailings, '));
  expect(parted?.when).toEqual({ from: day, to: day, windows: [['05:30', '09:00']] });
});

test('task: find every clash of next month', async ({ page }) => {
  await signIn(page);
  const ida = new Operator(page);
  await ida.click(page.getByRole('link', { name: 'Plan' }));
  await ida.click(page.getByRole('button', { name: /^Findings/ }));
  const day = new Date(today() * 24 * HOUR);
  const month = new Date(Date.UTC(day.getUTCFullYear(), day.getUTCMonth() + 1, 1));
  await ida.choose(
    page.getByLabel('In', { exact: true }),
    `${MONTH_WORDS[month.getUTCMonth()]} ${month.getUTCFullYear()}`,
  );
  expect(ida.acts).toBeLessThanOrEqual(3);
  const { timeZone } = (await draft()).sites.find((one) => one.id === 'ternholm') ?? { timeZone: 'Europe/Oslo' };
  expect(timeZone).toBe('Europe/Oslo');
  const first = (ahead: number) =>
    toInstant(OSLO, Date.UTC(day.getUTCFullYear(), day.getUTCMonth() + ahead, 1) as LocalTime);
  const expected = findings(await draft(), first(1), first(2)).filter((one) => one.kind === 'clash');
  expect(expected.length).toBeGreaterThan(0);
  const rows = page.locator('[data-finding="clash"]');
  await expect(rows).toHaveCount(expected.length);
  for (const { sentence } of expected) await expect(rows.getByText(sentence, { exact: true }).first()).toBeVisible();
});

test('bars by keys: walk, take hold, carry, stretch, change the layer, put down; take back and make again', async ({
  page,
}) => {
  await signIn(page, '/plan');
  const thursday = addDays(monday(), 3);
  const drill = bar(page, 'crew-drill-thursday', thursday);
  await drill.focus();
  await page.keyboard.press('Space');
  await expect(page.getByTestId('foot')).toContainText('Drill reminder');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowLeft');
  await page.keyboard.press('ArrowUp');
  await expect(page.getByTestId('ghost')).toBeVisible();
  await page.keyboard.press('Enter');
  const choice = page.getByRole('group', { name: 'Which days' });
  await expect(choice).toBeVisible();
  // The preview shows the change before it is made.
  await expect(page.getByRole('heading', { name: 'What shows, with this change' })).toBeVisible();
  await page.keyboard.press('3');
  await expect.poll(async () => (await bookingNamed('Drill reminder'))?.priority).toBe(5);
  expect((await hoursNamed('Drill reminder')).windows).toEqual([['08:30', '14:15']]);
  // The focus stays with what was carried.
  await expect(page.locator('[data-booking-bar]:focus')).toHaveAttribute('aria-label', /^Drill reminder, priority 5/);
  await expect(page.getByText('Ctrl Z undoes it')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await bookingNamed('Drill reminder'))?.priority).toBe(4);
  await page.keyboard.press('Control+y');
  await expect.poll(async () => (await bookingNamed('Drill reminder'))?.priority).toBe(5);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await hoursNamed('Drill reminder')).windows).toEqual([['08:00', '14:00']]);

  // Escape puts everything back; Delete takes one day off.
  await drill.focus();
  await page.keyboard.press('Space');
  await page.keyboard.press('PageDown');
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('ghost')).toHaveCount(0);
  await page.keyboard.press('Delete');
  await page.keyboard.press('1');
  await expect.poll(async () => (await hoursNamed('Drill reminder')).except).toEqual([formatDate(thursday)]);
  await expect(drill).toHaveCount(0);
  // What is taken off leaves the focus to its neighbour.
  await expect(page.locator('[data-booking-bar]:focus')).toHaveAttribute('aria-label', /, priority 4/);

  // Undo outlives the page: after a reload too it takes back what was done last.
  await page.reload();
  await expect(page.getByRole('button', { name: 'New booking' })).toBeEnabled();
  await expect(drill).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Undone: “Drill reminder”.')).toBeVisible();
  await expect(drill).toHaveCount(1);
});

/** Within half an hour: what is put down may take hold at another bar's end near by. */
const about = (hours: number) => ({
  asymmetricMatch: (other: unknown) => Math.abs(Number(other) - hours) <= 0.5,
  toString: () => `about ${hours}`,
});

/** When the first of windows begins, and how long it lasts, in hours. */
function hoursOf(windows: SetOfHours['windows']): [begins: number, lasts: number] {
  const [from = '', to = ''] = windows?.[0] ?? [];
  const [begin, end] = [from, to].map((time) => {
    const [hours, minutes] = time.split(':').map(Number);
    return (hours ?? NaN) + (minutes ?? NaN) / 60;
  }) as [number, number];
  return [begin, end - begin];
}

test('a short bar: its middle carries it, and its ends are pulled, a very short one from outside', async ({ page }) => {
  await signIn(page);
  const thursday = addDays(monday(), 3);
  const day = formatDate(thursday);
  const values = { content: { media: 'route-map' }, where: 'hall', priority: 5 as const };
  await booked('half-hour', {
    ...values,
    name: 'Half an hour',
    when: { from: day, to: day, windows: [['09:00', '09:30']] },
  });
  await booked('two-hours', {
    ...values,
    name: 'Two hours',
    when: { from: day, to: day, windows: [['17:00', '19:00']] },
  });
  const windows = async (name: string) => (await hoursNamed(name)).windows;
  await goTo(page, 'Plan');
  const ida = new Operator(page);
  const hour = (await placeOf(page, '5', thursday, 1)).x - (await placeOf(page, '5', thursday, 0)).x;

  const long = await box(bar(page, 'two-hours', thursday));
  const middle = { x: long.x + long.width / 3 + 1, y: long.y + long.height / 2 };
  await ida.drag(middle, { x: middle.x + hour * 2, y: middle.y });
  await expect.poll(async () => hoursOf(await windows('Two hours'))).toEqual([about(19), 2]);
  await expect.poll(async () => (await box(bar(page, 'two-hours', thursday))).x).toBeGreaterThan(long.x + hour);
  const later = await box(bar(page, 'two-hours', thursday));
  const was = hoursOf(await windows('Two hours'))[0];
  await page.mouse.move(later.x + later.width / 2, middle.y);
  await page.mouse.down();
  await page.mouse.move(later.x + later.width / 2 - hour, middle.y, { steps: 3 });
  await letGoAtOnce(bar(page, 'half-hour', thursday), { x: later.x + later.width / 2 - hour * 2, y: middle.y });
  await expect.poll(async () => hoursOf(await windows('Two hours'))).toEqual([about(was - 2), 2]);

  const short = await box(bar(page, 'half-hour', thursday));
  expect(short.width).toBeLessThan(12);
  const centre = { x: short.x + short.width / 2, y: short.y + short.height / 2 };
  await ida.drag(centre, { x: centre.x + hour * 2, y: centre.y });
  await expect.poll(async () => hoursOf(await windows('Half an hour'))).toEqual([about(11), 0.5]);
  const begins = hoursOf(await windows('Half an hour'))[0];
  const there = await box(bar(page, 'half-hour', thursday));
  const outside = { x: there.x + there.width + 4, y: there.y + there.height / 2 };
  await page.mouse.move(there.x + there.width / 2, outside.y);
  await page.mouse.move(outside.x, outside.y);
  await page.mouse.down();
  await page.mouse.move(outside.x + hour, outside.y, { steps: 6 });
  await page.mouse.up();
  await expect.poll(async () => hoursOf(await windows('Half an hour'))).toEqual([begins, about(1.5)]);
});

test('Alt copies a bar to another day; a clash is ended by its advice, with one key', async ({ page }) => {
  await signIn(page, '/plan');
  const thursday = addDays(monday(), 3);
  const step = (await placeOf(page, '4', addDays(thursday, 1), 0)).x - (await placeOf(page, '4', thursday, 0)).x;
  const from = await box(bar(page, 'crew-drill-thursday', thursday));
  await page.keyboard.down('Alt');
  const ida = new Operator(page);
  const grip = { x: from.x + from.width / 2, y: from.y + from.height / 2 };
  await ida.drag(grip, { x: grip.x + step, y: grip.y });
  await page.keyboard.up('Alt');
  const friday = formatDate(addDays(thursday, 1));
  await expect
    .poll(async () => (await draft()).bookings.find((one) => one.name.startsWith('Drill reminder, '))?.when)
    .toEqual({ from: friday, to: friday, windows: [['08:00', '14:00']] });
  expect((await hoursNamed('Drill reminder')).except).toBeUndefined();

  const sunday = addDays(monday(), 6);
  await bar(page, 'weekend-sailings', sunday).focus();
  await expect(page.getByTestId('foot')).toContainText('have the same priority at the same time');
  const before = (await draft()).bookings;
  await page.keyboard.press('1');
  await expect(page.getByText('done. Ctrl Z undoes it.')).toBeVisible();
  await expect.poll(async () => (await draft()).bookings).not.toEqual(before);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await draft()).bookings).toEqual(before);
});

test('a booking is duplicated: the copy begins as a new one, and nothing is booked until it is', async ({ page }) => {
  await signIn(page, '/plan?booking=crew-drill-thursday');
  const sheet = page.getByRole('dialog');
  await sheet.getByRole('button', { name: 'Duplicate…' }).click();
  await expect(sheet.getByLabel('Name')).toHaveValue('Drill reminder (2)');
  expect(await bookingNamed('Drill reminder (2)')).toBeUndefined();
  await sheet.getByLabel('When', { exact: true }).fill('weekdays 7-10 and weekends 10-16');
  await sheet.getByRole('button', { name: 'Book it' }).click();
  await expect(sheet).toHaveCount(0);
  const [first, second] = [await bookingNamed('Drill reminder'), await bookingNamed('Drill reminder (2)')];
  expect([second?.content, second?.where, second?.priority]).toEqual([first?.content, first?.where, first?.priority]);
  expect(setsOf(second?.when ?? {}).map(({ windows }) => windows)).toEqual([
    [['07:00', '10:00']],
    [['10:00', '16:00']],
  ]);
  await page.keyboard.press('Control+z');
  await expect.poll(() => bookingNamed('Drill reminder (2)')).toBeUndefined();
});

test('in the month a name is carried to another day, by pointer and by keys, and days are drawn for a new booking', async ({
  page,
}) => {
  await signIn(page, '/plan');
  await page.getByRole('button', { name: 'month', exact: true }).click();
  const thursday = addDays(monday(), 3);
  const day = (date: LocalDate) => page.locator(`[data-day="${date}"]`);
  const drill = day(thursday).getByRole('button', { name: 'Drill reminder' });
  const before = (await draft()).bookings;
  const known = new Set(before.map(({ id }) => id));
  const dates = async () =>
    (await draft()).bookings
      .filter(({ id, name }) => name === 'Drill reminder' || !known.has(id))
      .map(({ when }) => when);
  const carried = (to: LocalDate) => [
    expect.objectContaining({ except: [formatDate(thursday)] }),
    expect.objectContaining({ from: formatDate(to), to: formatDate(to), windows: [['08:00', '14:00']] }),
  ];

  const wednesday = addDays(thursday, -1);
  // What is measured must not move again: names are there, and it is scrolled once.
  await expect(drill).toBeVisible();
  const [to, from] = [await box(day(wednesday)), await drill.boundingBox()];
  if (!from) throw new Error('not visible');
  await page.mouse.move(from.x + 20, from.y + 6);
  await page.mouse.down();
  await page.mouse.move(from.x + 20, from.y + 16, { steps: 3 });
  await letGoAtOnce(day(wednesday), { x: to.x + to.width / 2, y: to.y + 40 });
  await expect(day(wednesday).getByRole('button', { name: /^Drill reminder, / })).toBeVisible();
  await expect(drill).toHaveCount(0);
  await page.keyboard.press('1');
  await expect.poll(dates).toEqual(carried(wednesday));
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await draft()).bookings).toEqual(before);

  // Enter still opens what has the focus, after a pull too.
  await drill.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog', { name: 'Drill reminder' })).toHaveCount(1);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);

  await drill.focus();
  for (const key of ['Space', 'ArrowLeft', 'ArrowLeft', 'Enter', '1']) await page.keyboard.press(key);
  await expect.poll(dates).toEqual(carried(addDays(thursday, -2)));
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await draft()).bookings).toEqual(before);

  await page.locator(`[data-open-day="${thursday}"]`).focus();
  for (const key of ['Space', 'ArrowRight', 'ArrowRight']) await page.keyboard.press(key);
  await expect(page.locator('[data-drawn]')).toHaveCount(3);
  await page.keyboard.press('Enter');
  const sheet = page.getByRole('dialog', { name: 'A new booking' });
  const drawn = { from: formatDate(thursday), to: formatDate(addDays(thursday, 2)) };
  await expect(sheet.getByLabel('When', { exact: true })).toHaveValue(describeWhen(drawn));
});

test('a day is copied on to others, and a week is printed', async ({ page }) => {
  await signIn(page, '/plan');
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Copy days to other days' }).click();
  const sheet = page.getByRole('dialog');
  const saturday = addDays(monday(), 5);
  await sheet.getByLabel('From').fill(formatDate(saturday));
  await sheet.getByRole('checkbox').nth(2).check();
  await expect(sheet.getByText(/bookings? will change/)).toBeVisible();
  await sheet.getByRole('button', { name: 'Copy', exact: true }).click();
  // Taken back at once, while the sheet still stands: it waits for the change, and is not lost.
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/^Undone: /)).toBeVisible();
  await expect(sheet).toHaveCount(0);
  expect((await hoursNamed('Weekend sailings')).also).toBeUndefined();
  await page.keyboard.press('Control+y');
  const target = formatDate(addDays(saturday, 3));
  await expect.poll(async () => (await hoursNamed('Weekend sailings')).also).toEqual([target]);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await hoursNamed('Weekend sailings')).also).toBeUndefined();

  await page.emulateMedia({ media: 'print' });
  const sheetOfPaper = page.getByTestId('print-week');
  await expect(sheetOfPaper).toBeVisible();
  await expect(sheetOfPaper.getByRole('row', { name: /Evening sailings/ })).toContainText('16:30–23:30');
  await expect(page.getByRole('button', { name: 'New booking' })).toBeHidden();
});

test('two people at one booking: each sees the other, and neither loses words', async ({ browser, page }) => {
  await signIn(page);
  const other = await browser.newContext();
  const otto = await other.newPage();
  await signIn(otto, '/', { email: 'otto@ternholm.example', password: 'lamps-at-dawn' });
  const openSheet = async (who: Page) => {
    await goTo(who, 'Plan');
    await who.getByRole('button', { name: 'list', exact: true }).click();
    await who.locator('[data-booking="aurora"]').click();
    return who.getByRole('dialog');
  };
  const [ours, theirs] = [await openSheet(page), await openSheet(otto)];
  // Ida writes and has not left the field; Otto changes another field, and the same one.
  await ours.getByLabel('Name').fill('Aurora of Ida');
  await theirs.getByLabel('Name').fill('Aurora of Otto');
  await theirs.getByLabel('Where').fill('kiosk and north');
  await theirs.getByLabel('Seconds').focus();
  await expect.poll(async () => (await bookingNamed('Aurora of Otto'))?.where).toBe('kiosk and north');
  await expect(ours.getByTestId('conflicts')).toContainText('Name: theirs is Aurora of Otto');
  await expect(ours.getByLabel('Where')).toHaveValue('kiosk and north');
  await expect(ours.getByLabel('Name')).toHaveValue('Aurora of Ida');
  await ours.getByRole('button', { name: 'Keep mine' }).click();
  await expect.poll(async () => (await bookingNamed('Aurora of Ida'))?.where).toBe('kiosk and north');
  await expect(theirs.getByLabel('Name')).toHaveValue('Aurora of Ida');
  // Both change the hours: what comes of it is what one of them wrote, whole.
  await ours.getByLabel('When', { exact: true }).fill('weekdays 06:00–22:00');
  await theirs.getByLabel('When', { exact: true }).fill('Mon–Sat 08:00–12:00');
  await theirs.getByLabel('Seconds').focus();
  await expect(ours.getByTestId('conflicts')).toContainText(/When: theirs is .*08:00–12:00/);
  await ours.getByRole('button', { name: 'Keep mine' }).click();
  await expect
    .poll(async () => (await bookingNamed('Aurora of Ida'))?.when)
    .toMatchObject({ repeat: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR', windows: [['06:00', '22:00']] });
  await other.close();
});

test('a calendar file becomes bookings after a look at it; a feed is read until it is closed', async ({ page }) => {
  await signIn(page, '/plan');
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Bookings from a calendar file' }).click();
  const sheet = page.getByRole('dialog');
  const event = (...lines: string[]) => ['BEGIN:VEVENT', ...lines, 'END:VEVENT'];
  await sheet
    .getByLabel('Or paste it here')
    .fill(
      [
        'BEGIN:VCALENDAR',
        ...event(
          'UID:1',
          'SUMMARY:Harbour market',
          'DTSTART;TZID=Europe/Oslo:20261205T080000',
          'DURATION:PT6H',
          'RRULE:FREQ=WEEKLY;BYDAY=SA;COUNT=4',
          'CATEGORIES:hall',
        ),
        ...event('UID:2', 'SUMMARY:Broken', 'DTSTART:20261205T080000'),
        ...event('UID:3', 'SUMMARY:Night ferry', 'DTSTART:20261205T230000Z', 'DURATION:PT1H', 'CATEGORIES:hall'),
        'END:VCALENDAR',
      ].join('\r\n'),
    );
  await expect(sheet.getByText('line 10')).toBeVisible();
  await expect(sheet.getByLabel('Events').getByText('Harbour market')).toBeVisible();
  // Each event shows what the file says and what it comes to: an instant stays that instant.
  const night = sheet.getByLabel('Events').getByRole('listitem').filter({ hasText: 'Night ferry' });
  await expect(night).toContainText('23:00');
  await expect(night).toContainText('becomes Sun 6 Dec 00:00–01:00 in Oslo');
  await sheet.getByLabel('Each site’s own').check();
  await expect(night).toContainText('becomes Sat 5 Dec 23:00–24:00 on each site’s clock');
  await sheet.getByLabel('As the file says: 1 event in').check();
  await expect(sheet.getByRole('button', { name: 'Add 2 bookings' })).toBeDisabled();
  // Out of the way of the list that opens, or the option under the pointer would be chosen.
  await page.mouse.move(1, 1);
  await pick(sheet.getByLabel('What they show'), 'media:route-map', 'Route map');
  await sheet.getByRole('button', { name: 'Add 2 bookings' }).click();
  await expect(page.getByText('2 bookings added.')).toBeVisible();
  expect((await bookingNamed('Night ferry'))?.when).toMatchObject({ from: '2026-12-05', clock: 'UTC' });
  expect(await bookingNamed('Harbour market')).toMatchObject({
    where: 'hall',
    when: { from: '2026-12-05', repeat: 'FREQ=WEEKLY;COUNT=4;BYDAY=SA', windows: [['08:00', '14:00']] },
  });

  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Feeds for calendar programs' }).click();
  await sheet.getByLabel('Name of the feed').fill('Halls');
  await sheet.getByLabel('Where').fill('hall');
  await sheet.getByRole('button', { name: 'Open the feed' }).click();
  const address = await sheet.getByLabel('Address of the feed').inputValue();
  // Whoever has the address: without a session.
  const answer = await fetch(address);
  expect([answer.status, answer.headers.get('content-type')]).toEqual([200, 'text/calendar; charset=utf-8']);
  const names = new ICAL.Component(ICAL.parse(await answer.text()) as unknown[])
    .getAllSubcomponents('vevent')
    .map((one) => String(one.getFirstPropertyValue('summary')));
  expect(names).toContain('Morning sailings');
  expect(names).not.toContain('Harbour market');
  const etag = answer.headers.get('etag') ?? '';
  expect((await fetch(address, { headers: { 'if-none-match': etag } })).status).toBe(304);
  await sheet.getByRole('button', { name: 'Close the feed Halls' }).click();
  await expect(page.getByText('The feed is closed')).toBeVisible();
  expect((await fetch(address)).status).toBe(404);
  expect((await fetch(server('/api/feeds/guess.ics'))).status).toBe(404);
});

test('a large calendar file is read beside the page, and can be broken off; its bookings are one act', async ({
  page,
}) => {
  await signIn(page, '/plan');
  const before = (await draft()).bookings;
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Bookings from a calendar file' }).click();
  const sheet = page.getByRole('dialog');
  const calendar = (...lines: string[]) => ['BEGIN:VCALENDAR', ...lines, 'END:VCALENDAR'].join('\r\n');
  const choose = (text: string) =>
    sheet
      .getByLabel('A calendar file (.ics)')
      .setInputFiles({ name: 'long.ics', mimeType: 'text/calendar', buffer: Buffer.from(text) });

  // A zone of its own for each event, which is looked for among all that there are: much work, in even parts.
  const zones = Array.from({ length: 2000 }, (_, i) => i).flatMap((i) => [
    ...['BEGIN:VTIMEZONE', `TZID:Z${i}`, 'BEGIN:STANDARD', 'DTSTART:20200101T000000'],
    ...['TZOFFSETFROM:+0123', 'TZOFFSETTO:+0123', 'END:STANDARD', 'END:VTIMEZONE'],
    ...['BEGIN:VEVENT', `UID:z${i}`, `DTSTART;TZID=Z${i}:20261205T080000`, 'DURATION:PT1H', 'END:VEVENT'],
  ]);
  await choose(calendar(...zones));
  // The first zone takes some seconds, since all that there are are looked at; more where others hold the cores.
  await expect(sheet.getByRole('progressbar', { name: /^Reading the file, [1-9]/ })).toBeVisible();
  await sheet.getByRole('button', { name: 'Cancel' }).click();
  await expect(sheet.getByRole('progressbar')).toHaveCount(0);

  const events = Array.from({ length: 300 }, (_, i) => i).flatMap((i) => [
    ...['BEGIN:VEVENT', `UID:${i}`, `SUMMARY:Drill ${i}`, 'DTSTART:20270105T080000', 'DURATION:PT1H'],
    ...['X-LANTERNPOST-WHERE:hall', 'X-LANTERNPOST-CONTENT:media:route-map', 'END:VEVENT'],
  ]);
  await choose(calendar(...events));
  await expect(sheet.getByRole('button', { name: /^Show more \(\d+ left\)$/ })).toBeAttached();
  await sheet.getByRole('button', { name: 'Add 300 bookings' }).click();
  await expect(page.getByText('300 bookings added. Ctrl Z undoes them.')).toBeVisible();
  expect(await bookingNamed('Drill 299')).toMatchObject({ where: 'hall' });
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Undone: “Drill 0” and 299 more.')).toBeVisible();
  expect((await draft()).bookings).toEqual(before);
});

test('two keys in turn go ahead of what the second means alone, wherever the focus stands', async ({ page }) => {
  await signIn(page, '/plan');
  await page.locator('[data-booking-bar]').first().focus();
  await page.keyboard.press('g');
  await page.keyboard.press('n');
  await expect(page.getByRole('heading', { level: 1, name: 'Now' })).toBeAttached();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await goTo(page, 'Plan');
  await page.keyboard.press('n');
  const sheet = page.getByRole('dialog');
  // What is typed next is its name.
  await expect(sheet.getByLabel('Name')).toBeFocused();
  await page.keyboard.type('Fog signals');
  await expect(sheet.getByLabel('Name')).toHaveValue('Fog signals');
  // The tags are one stop on the way from Where to When.
  await sheet.getByLabel('Where').focus();
  await page.keyboard.press('Tab');
  const tags = sheet.getByRole('group', { name: 'Tags' }).getByRole('button');
  await expect(tags.first()).toBeFocused();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(sheet.getByLabel('Where')).toHaveValue((await tags.nth(1).textContent()) ?? '');
  await page.keyboard.press('Tab');
  await expect(sheet.getByLabel('When')).toBeFocused();
  await page.keyboard.press('Escape');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toContainText('A new booking');
});

test('public holidays become a calendar that bookings can name', async ({ page }) => {
  await signIn(page, '/plan');
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Calendars of dates' }).click();
  const sheet = page.getByRole('dialog');
  await sheet.getByLabel('Country').selectOption('NO');
  await sheet.getByRole('button', { name: 'Add public holidays' }).click();
  await expect(sheet.getByText('Public holidays, Norway')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('n');
  await sheet.getByLabel('When').fill('weekends, not on Public holidays, Norway');
  await expect(sheet.getByText('weekends, from').or(sheet.getByText(/not on public-holidays-norway/))).toBeVisible();
});

test('the month and the year lead to a day; the moment moves along', async ({ page }) => {
  await signIn(page, '/plan');
  await page.getByRole('button', { name: 'year', exact: true }).click();
  await page.getByRole('button', { name: 'Dec', exact: true }).click();
  await expect(page.getByTestId('plan-span')).toContainText('Dec');
  const fifth = page.getByRole('button', { name: /^\w+ 5 Dec/ });
  // At its number: further down stand names.
  await fifth.click({ position: { x: 10, y: 10 } });
  await expect(page.getByTestId('plan-span')).toContainText('5 Dec');
  await expect(page.getByTestId('moment').locator('..')).toContainText('5 Dec');
  // A click on what shows tells why, at that time; so do the keys.
  await page.locator('[data-outcome] [data-source]').first().click();
  await expect(page.getByTestId('strata-why')).toContainText('because');
  const row = page.locator('[data-outcome]').nth(1);
  await row.getByRole('button').first().focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('strata-why')).toContainText('because');
});

test('time on air is shown where things are edited, as the core counts it', async ({ page }) => {
  await signIn(page);
  const from = Math.floor(Date.now() / HOUR) * HOUR;
  const times = airTime(await draft(), { kind: 'media', id: 'route-map' }, from, from + 7 * 24 * HOUR);
  await goTo(page, 'Library');
  await page.locator('[data-media="route-map"]').click();
  await expect(page.getByTestId('on-air')).toContainText(`on ${times.length} screens`);
  await goTo(page, 'Plan');
  await page.getByRole('button', { name: /^Findings/ }).click();
  const never = page.getByRole('region', { name: 'Never shows' });
  await expect(never).toContainText('Gale notice on hold');
});

test('a browser whose own zone data are others tells the times of the server', async ({ page }) => {
  const errors: string[] = [];
  page.on('pageerror', ({ message }) => errors.push(message));
  await page.addInitScript(() => {
    const Own = Intl.DateTimeFormat;
    const Other = function (locale?: string, options?: Intl.DateTimeFormatOptions) {
      return new Own(locale, options?.timeZone === 'Europe/Oslo' ? { ...options, timeZone: 'Pacific/Apia' } : options);
    };
    Object.assign(Intl, { DateTimeFormat: Object.assign(Other, { supportedLocalesOf: Own.supportedLocalesOf }) });
  });
  await signIn(page);
  const clock = page.getByRole('region', { name: 'Sillarvik Quay' }).locator('header');
  const oslo = () => new Date(toLocalTime(OSLO, Date.now())).toISOString().slice(11, 16);
  await expect.poll(async () => (await clock.innerText()).includes(oslo())).toBe(true);
  expect(errors).toEqual([]);
});
