export {
  WHEN_FIELDS,
  dateSchema,
  hoursSchema,
  whenSchema,
  windowSchema,
  zoneSchema,
  type OpeningHours,
  type When,
} from './schema';
export * from './dates';
export { parseRule, ruleDates, writeRule, type Rule } from './rule';
export { adoptZones, isZone, toInstant, toLocalTime, trimZone, zoneTable, type ZoneTable } from './zone';
export { ALWAYS, intersect, intervalAt, subtract, union, type Interval, type Intervals } from './intervals';
export { openingOf, parseClock, parseEdge } from './windows';
export {
  datesOf,
  instantsOf,
  isAlways,
  occurrences,
  clockChanges,
  occurrenceMemo,
  localOccurrences,
  type LocalOccurrence,
  type Occurrence,
  type Place,
} from './occurrences';
export { DAY_WORDS, MONTH_WORDS, describeWhen, edgeWords, weeklyDays, weeklyRule } from './words';
export { completionsOf, edgeOf, readWhen, readingsOf, type PhraseContext } from './phrase';
export { readMoment, readShift } from './moment';
export { isSpan, readAhead, readUntil, spanOf, spanWhen } from './span';
