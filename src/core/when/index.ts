export { calendarsOf, clocksOf, followsHours, followsSun, setsOf, whenOfSets, withSet } from './sets-of-hours';
export {
  MOST_SETS,
  WHEN_FIELDS,
  dateSchema,
  hoursSchema,
  whenSchema,
  windowSchema,
  zoneSchema,
  type OpeningHours,
  type SetOfHours,
  type When,
} from './schema';
export * from './dates';
export { parseRule, ruleDates, writeRule, type Rule } from './rule';
export { adoptZones, isZone, toInstant, toLocalTime, trimZone, zoneTable, type ZoneTable } from './zone';
export { ALWAYS, intersect, intervalAt, subtract, union, type Interval, type Intervals } from './intervals';
export { openingOf, windowBetween } from './windows';
export { MOST_DAYS, parseClock, parseEdge, type WrittenWindow } from './written';
export {
  datesOf,
  instantsOf,
  isAlways,
  occurrences,
  clockChanges,
  occurrenceMemo,
  localOccurrences,
  type DatedPlace,
  type LocalOccurrence,
  type Occurrence,
  type Place,
} from './occurrences';
export { sunAt, type Coordinates } from './sun';
export { DAY_WORDS, MONTH_WORDS, describeWhen, edgeWords, weeklyDays, weeklyRule } from './words';
export { NO_CALENDAR, completionsOf, edgeOf, endingsOf, readWhen, readingsOf, type PhraseContext } from './phrase';
export { readMoment, readShift } from './moment';
export { isSpan, readAhead, readUntil, spanOf, spanWhen } from './span';
