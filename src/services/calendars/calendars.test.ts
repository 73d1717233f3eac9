import ICAL from 'ical.js';
import { ChangeRow } from '@/database';
import { publishEdition } from '../editions';
import { draftPlan, edit, lastChange } from '../plan';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { closeFeed, feedCalendar, feeds, holidayDates, holidayRegions, holidaysOf, openFeed, refreshHolidays } from '.';

useDatabase();

/** From memory of the Norwegian law on public holidays: fixed days, and Easter's (Easter Sunday 2027 is 28 March). */
const NORWAY_2027 = [
  '2027-01-01',
  '2027-03-25',
  '2027-03-26',
  '2027-03-28',
  '2027-03-29',
  '2027-05-01',
  '2027-05-06',
  '2027-05-16',
  '2027-05-17',
  '2027-12-25',
  '2027-12-26',
];

test('public holidays of a country, and of a region that has more', () => {
  expect(holidayDates({ country: 'NO' }, 2026).filter((date) => date.startsWith('2027'))).toEqual(NORWAY_2027);
  // What they are called in English: date-holidays' own words; in 2027 two are of one day (Easter is 28 March).
  expect(holidaysOf({ country: 'NO' }, 2026)).toContainEqual({
    date: '2027-05-17',
    name: 'Constitution Day, Whit Monday',
  });
  expect(holidayRegions('DE').map((one) => one.code)).toContain('BY');
  const [germany, bavaria] = [
    holidayDates({ country: 'DE' }, 2026),
    holidayDates({ country: 'DE', region: 'BY' }, 2026),
  ];
  expect(bavaria.length).toBeGreaterThan(germany.length);
  expect(() => holidayDates({ country: 'XX' }, 2026)).toThrow('The public holidays of “XX” aren’t known.');
  expect(() => holidayDates({ country: 'NO', region: 'BY' }, 2026)).toThrow('isn’t a region of NO');
});

test('a calendar of public holidays is part of the plan, and keeps itself current as a change of nobody', async () => {
  const actor = await newNetwork();
  const holidays = { country: 'NO' };
  await edit(actor, [{ kind: 'calendar', add: { name: 'Holidays', dates: holidayDates(holidays, 2026), holidays } }]);
  const last = async () => (await draftPlan(actor)).plan.calendars[0]?.dates.at(-1);
  expect(await last()).toBe('2029-12-26');
  expect((await draftPlan(actor)).plan.calendars[0]).toMatchObject({ id: 'holidays', holidays: { country: 'NO' } });
  expect(await refreshHolidays(new Date('2026-12-31T00:00:00Z'))).toBe(0);
  expect(await refreshHolidays(new Date('2027-01-01T12:00:00Z'))).toBe(1);
  expect(await last()).toBe('2030-12-26');
  const change = await ChangeRow.findOne({ where: { id: await lastChange(actor.networkId) } });
  expect(change).toMatchObject({ kind: 'calendar', object: 'holidays', personId: null });
});

describe('feeds', () => {
  const now = Date.UTC(2026, 10, 25);
  const book = (name: string, where: string) => ({
    kind: 'booking' as const,
    add: {
      name,
      content: { playlist: 'house' },
      where,
      created: '2026-01-01T00:00:00Z',
      when: { from: '2026-12-01', to: '2026-12-03', windows: [['05:30', '10:00']] },
    },
  });
  const summaries = (file: string) =>
    new ICAL.Component(ICAL.parse(file) as unknown[])
      .getAllSubcomponents('vevent')
      .map((event) => String(event.getFirstPropertyValue('summary')));

  test('a feed answers with the published bookings that reach its screens, until it is closed', async () => {
    const actor = await newNetwork();
    await newPlan(actor);
    await edit(actor, [book('Morning', 'hall'), book('Night', 'deck'), book('Everywhere', 'quay')]);
    const { token } = await openFeed(actor, { name: 'Halls', where: 'hall' });
    expect(summaries(await feedCalendar(token, now))).toEqual([]);
    await publishEdition(actor, await lastChange(actor.networkId));
    await edit(actor, [book('Not yet', 'hall')]);
    const file = await feedCalendar(token, now);
    expect(summaries(file)).toEqual(['Everywhere', 'Morning']);
    expect(file).toContain('DTSTART;TZID=Europe/Oslo:20261201T053000');
    // The same edition is the same file: a program that asks again is told that nothing changed.
    expect(await feedCalendar(token, now)).toBe(file);
    const [feed] = await feeds(actor);
    expect(feed).toMatchObject({ name: 'Halls', where: 'hall', fetchedAt: expect.any(String) as string });
    await closeFeed(actor, feed?.id ?? '');
    await expect(feedCalendar(token, now)).rejects.toMatchObject({ status: 404 });
    expect(await feeds(actor)).toEqual([]);
  });

  test('a feed of screens in several zones floats: the same hour everywhere', async () => {
    const actor = await newNetwork();
    await newPlan(actor);
    await edit(actor, [
      { kind: 'site', id: 'far', add: { name: 'Far', timeZone: 'Atlantic/Reykjavik' } },
      { kind: 'screen', id: 'far-hall', add: { name: 'Hall', site: 'far', width: 2, height: 1, tags: ['hall'] } },
      book('Morning', 'hall'),
    ]);
    await publishEdition(actor, await lastChange(actor.networkId));
    const { token } = await openFeed(actor, { name: 'Halls', where: 'hall' });
    expect(await feedCalendar(token, now)).toContain('\r\nDTSTART:20261201T053000\r\n');
  });

  test('bad input is told; another network sees and closes nothing of ours', async () => {
    const [ours, theirs] = [await newNetwork(), await newNetwork()];
    await expect(openFeed(ours, { name: '', where: 'hall and' })).rejects.toMatchObject({
      status: 422,
      problems: [{ path: '/name' }, { path: '/where' }],
    });
    const { token } = await openFeed(theirs, { name: 'Secret', where: 'all' });
    const [feed] = await feeds(theirs);
    expect(await feeds(ours)).toEqual([]);
    await expect(closeFeed(ours, feed?.id ?? '')).rejects.toMatchObject({ status: 404 });
    await expect(closeFeed(ours, 'no-uuid')).rejects.toMatchObject({ status: 404 });
    for (const wrong of ['', 'x', `${token}x`, feed?.id ?? ''])
      await expect(feedCalendar(wrong, now)).rejects.toMatchObject({ status: 404 });
  });
});
