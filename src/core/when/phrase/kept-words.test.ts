import type { When } from '../schema';
import { lostWords } from './kept-words';

test.each<[string, When, string]>([
  // As it was once read, and booked.
  [
    'weekends 10–16 from 1 to 20 December',
    {
      from: '2026-11-29',
      repeat: 'FREQ=WEEKLY;BYDAY=SA,SU',
      windows: [
        ['10:00', '16:00'],
        ['01:00', '24:00'],
      ],
    },
    '20 December',
  ],
  ['1 Dec to 20 Dec 2027', { from: '2026-12-01', to: '2026-12-20' }, '20 Dec 2027'],
  ['Dec 1 to Dec 20', { from: '2026-12-01', to: '2026-12-02' }, 'Dec 20'],
  ['2026-12-01 to 2026-12-20', { from: '2026-12-01', to: '2027-12-20' }, '2026-12-20'],
  ['weekdays 10:00-16:00', { windows: [['10:00', '18:00']] }, '16:00'],
  ['weekdays 10am to 4pm', { windows: [['10:00', '04:00']] }, '4pm'],
  ['daily 08:30:15 to 9:00', { windows: [['08:30', '09:00']] }, '08:30:15'],
])('of "%s" read as %j it is told what is missing', (text, when, lost) => {
  expect(lostWords(text, when)).toMatch(new RegExp(`^You wrote “${lost}”, but this would be read as`));
});

test.each<[string, When]>([
  ['1 Dec 22:00 to 2 Dec 06:00', { from: '2026-12-01', to: '2026-12-01', windows: [['22:00', '06:00']] }],
  ['two weeks before 24 Dec', { from: '2026-12-10', to: '2026-12-10' }],
  ['24, 25 and 26 Dec', { from: '2026-12-24', to: '2026-12-26' }],
  ['24 Dec each year', { repeat: 'FREQ=YEARLY;BYMONTH=12;BYMONTHDAY=24' }],
  ['until 31 Dec 24:00', { to: '2026-12-31' }],
  ['20 past 7 to half past 8 pm', { windows: [['19:20', '20:30']] }],
])('"%s" read as %j has all of it', (text, when) => {
  expect(lostWords(text, when)).toBeNull();
});
