import { isZone } from '../zone';
import { clause, type Clause } from './clause';
import { dates, hoursBeforeMonth, namedRange, stretch } from './dates';
import { calendars, exceptions } from './exceptions';
import { now, opening, parts, windows } from './hours';
import { byRule, rules } from './rules';
import { spans } from './spans';
import { LENGTH, NTH_WORD } from './vocabulary';
import { inMonths, weekdays, weeks } from './weekdays';

const EVERY_DAY =
  '(?:all\\s+the\\s+time|(?:at\\s+)?any\\s+time|(?:once|twice|(?:two|three|four|[2-9])\\s+times)\\s+(?:a|each|every)\\s+day(?=,?\\s+at\\b)|day\\s+and\\s+night|until\\s+further\\s+notice|indefinitely|for\\s*ever|all\\s+day(?:\\s+long)?|(?:the\\s+)?whole\\s+day|(?:all\\s+)?year[- ]round|a?round\\s+the\\s+clock|24/7|24\\s*h(?:(?:ou)?rs)?(?:\\s+a\\s+day)?|(?:seven|7)\\s+days\\s+a\\s+week|daily|(?:every|each)(?:\\s+single)?\\s*day)\\b';

const always = clause((reader, draft) => {
  if (reader.take('always\\b')) draft.endless = true;
  else if (reader.take(EVERY_DAY)) draft.daily = true;
  else return null;
  return true;
});

/** What a booking can't say: it would need one for each. */
const tooOften = clause((reader) => {
  if (
    !reader.take(
      `every\\s+(?:${LENGTH}|hour\\b|minute\\b|quarter\\b(?!,?\\s+(?:on|the|from|${NTH_WORD})\\b))|hourly\\b|(?:twice|once)\\s+an\\s+hour\\b`,
    )
  )
    return null;
  reader.error = 'A booking can’t repeat every few minutes. Give it a share of the loop, or add it to a playlist.';
  return true;
});

const clock = clause((reader, draft) => {
  if (reader.take("(?:in\\s+|on\\s+)?(?:each\\s+|the\\s+)?(?:site(?:'s|’s)?(?:\\s+own)?|local)\\s+(?:time|clock)\\b"))
    return true;
  const match = reader.take(
    '(?:in\\s+|on\\s+)?([a-z][a-z0-9_+/-]*(?:\\s+[a-z][a-z0-9_+/-]*){0,3}?)\\s+(?:time|clock)\\b',
  );
  const written = match ? (match[1] ?? '').replaceAll(' ', '_') : (reader.take('UTC\\b')?.[0] ?? '');
  if (written === '') return null;
  const name = written.toLowerCase();
  const known = (reader.context.zones ?? []).find(
    (zone) => zone.toLowerCase() === name || zone.toLowerCase().endsWith(`/${name}`),
  );
  const zone = known ?? (isZone(written) ? zoneAsWritten(written) : null);
  if (zone === null) {
    reader.error = `“${match?.[0].trim() ?? written}” isn’t a time zone. Write a city, e.g. “Oslo time”.`;
    return true;
  }
  draft.clock = zone;
  return true;
});

/** A zone's name with its own capitals: `utc` is UTC. */
function zoneAsWritten(name: string): string {
  const { timeZone } = new Intl.DateTimeFormat('en', { timeZone: name }).resolvedOptions();
  return timeZone.toLowerCase() === name.toLowerCase() ? timeZone : name;
}

/** In this order: what could be read in two ways is read by the first. */
export const CLAUSES: readonly Clause[] = [
  always,
  hoursBeforeMonth,
  stretch,
  namedRange,
  byRule,
  tooOften,
  now,
  parts,
  spans,
  rules,
  exceptions,
  weekdays,
  calendars,
  weeks,
  inMonths,
  opening,
  windows,
  dates,
  clock,
];
