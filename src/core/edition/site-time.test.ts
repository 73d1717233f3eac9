import { readSiteTime, siteInstants, siteTime } from './site-time';
import type { Plan } from '../plan/schema';

const plan = {
  sites: [
    { id: 'quay', name: 'Quay', timeZone: 'Europe/Oslo', tags: [] },
    { id: 'isle', name: 'Isle', timeZone: 'Atlantic/Reykjavik', tags: [] },
  ],
  screens: [
    { id: 'hall', site: 'quay' },
    { id: 'hut', site: 'isle' },
  ],
} as unknown as Plan;
const utc = (text: string) => Date.parse(`${text}Z`);
const instants = (text: string) => Object.fromEntries(siteInstants(plan, readSiteTime(text) ?? (0 as never)));

// Values by RFC 5545 section 3.3.5: a reading that is skipped counts with the offset before the gap, one that occurs twice is the first.
test.each([
  ['2026-12-01T06:00:00', '2026-12-01T05:00:00', '2026-12-01T06:00:00'],
  ['2026-07-01T06:00:00', '2026-07-01T04:00:00', '2026-07-01T06:00:00'],
  ['2027-03-28T02:30:00', '2027-03-28T01:30:00', '2027-03-28T02:30:00'],
  ['2026-10-25T02:30:00', '2026-10-25T00:30:00', '2026-10-25T02:30:00'],
])('clocks that show %s do so at %s in Oslo and at %s in Iceland', (text, hall, hut) => {
  expect(instants(text)).toEqual({ hall: utc(hall), hut: utc(hut) });
});

test.each(['', '2026-12-01', '2026-12-01T06:00', '2026-13-01T06:00:00', '2026-02-30T06:00:00', '2026-12-01T06:00:00Z'])(
  '"%s" is no time at a site',
  (text) => {
    expect(readSiteTime(text)).toBeNull();
  },
);

test('what is written is read again', () => {
  expect(siteTime(readSiteTime('2026-12-01T06:00:30') ?? (0 as never))).toBe('2026-12-01T06:00:30');
});
