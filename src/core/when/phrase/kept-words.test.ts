import type { When } from '../schema';
import { lostWords } from './kept-words';
import { readRows } from '../../tests/rows';

test.each<[string, When, string]>(readRows('when/phrase/lost-words.jsonl'))(
  'of "%s" read as %j it is told what is missing',
  (text, when, lost) => {
    expect(lostWords(text, when)).toMatch(new RegExp(`^You wrote “${lost}”, but this would be read as`));
  },
);

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
