export { completionsOf } from './complete';
export { readWhen, readingsOf } from './read';
export { Reader, type PhraseContext } from './reader';
export { clockOf, edgeOf, isBare } from './edges';
export { DAY, EDGE, LENGTH, minutesOf, weekdayNumber } from './vocabulary';
