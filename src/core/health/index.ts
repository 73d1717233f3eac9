export {
  MEASURES,
  STATES,
  STATES_BY_NEED,
  stateSpans,
  timeIn,
  troubleKind,
  type Measure,
  type Sample,
  type Since,
  type State,
  type StateSpan,
} from './health';
export { ALL_PROBLEMS, PROBLEMS, type Facts, type Problem } from './problems';
