export { completionsOf, endingsOf } from './complete';
export { NO_CALENDAR } from './exceptions';
export { readWhen, readingsOf } from './read';
export { Reader, type PhraseContext } from './reader';
export { clockOf, edgeOf, isBare } from './edges';
export { DAY, EDGE, LENGTH, minutesOf, weekdayNumber } from './vocabulary';
