import { readWhen } from './read';
import type { PhraseContext } from './reader';

/** What phrases go on with, as one types: in the order in which they are offered. */
const PIECES: readonly string[] = [
  ...[
    'weekdays 09:00–17:00',
    'weekdays',
    'weekends',
    'daily',
    'daily except Sunday',
    'opening hours',
    'overnight 22:00 to 06:00',
  ],
  ...['today', 'tonight', 'tomorrow', 'this weekend', 'next week', 'next month', 'this Friday'],
  ...['Mondays', 'Tuesdays', 'Wednesdays', 'Thursdays', 'Fridays', 'Saturdays', 'Sundays'],
  ...[
    'every other Monday',
    'every third day',
    'first Monday of the month',
    'last working day of the month',
    'every year on 17 May',
  ],
  ...[
    'from opening until noon',
    'an hour before closing until closing',
    'now until 20:00',
    'for 10 minutes',
    'for two weeks',
  ],
  ...['until Christmas Day', 'until the end of the month', 'from tomorrow', 'except 24 Dec', 'not on Sundays'],
];
const MOST = 8;

/**
 * Phrases that go on from what is written: its last piece made whole, or another piece after it. All of them can be read; those of the
 * plan's calendars are among them.
 */
export function completionsOf(text: string, context: PhraseContext): string[] {
  const calendars = context.calendars.flatMap(({ name }) => [`not on ${name}`, `only on ${name}`]);
  const comma = text.lastIndexOf(', ');
  const cut = comma < 0 ? 0 : comma + 2;
  const [before, piece] = [text.slice(0, cut), text.slice(cut)];
  const written = piece.trim().toLowerCase();
  if (written === '' && before === '') return [];
  return [...PIECES, ...calendars]
    .filter((one) => one.toLowerCase().startsWith(written) && one.toLowerCase() !== written)
    .map((one) => before + one)
    .filter((whole) => readWhen(whole, context).ok)
    .slice(0, MOST);
}
