import { NO_END, readWhen } from './read';
import type { PhraseContext } from './reader';

/** How a phrase can continue while it is being typed, in the order in which the suggestions are shown. */
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
    'sunset to midnight',
    'now until 20:00',
    'for 10 minutes',
    'for two weeks',
  ],
  ...['until Christmas Day', 'until the end of the month', 'from tomorrow', 'except 24 Dec', 'not on Sundays'],
];
const MOST = 8;

/** With what a phrase ends that says when something begins, and not until when. */
const ENDS = ['for an hour', 'until noon', 'until closing', 'until 24:00'];

/**
 * Phrases that say an end too, for one that only says a beginning: "next Monday 7am for an hour", "… until closing". Each is read as
 * one thing; none for a phrase that is understood, or lacks something else.
 */
export function endingsOf(text: string, context: PhraseContext): string[] {
  const read = readWhen(text, context);
  if (read.ok || !read.message.startsWith(NO_END)) return [];
  return ENDS.map((end) => `${text.trim()} ${end}`).filter((whole) => readWhen(whole, context).ok);
}

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
