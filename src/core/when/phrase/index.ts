export { completionsOf } from './complete';
export { readWhen, readingsOf } from './read';
export { Reader, type PhraseContext } from './reader';
export { edgeOf } from './edges';
export { DAY, EDGE, LENGTH, minutesOf, weekdayNumber } from './vocabulary';
