export { forecast, forecastAt, forecastDocument, type Forecast } from './forecast';
export {
  placeOf,
  programMaker,
  screenProgram,
  withoutProvenance,
  zonesOf,
  type BackdropLevel,
  type Loop,
  type LoopItem,
  type ScreenProgram,
} from './program';
export { segmentPlays, type Play } from './plays';
export {
  candidates,
  compareCandidates,
  lightsOutInstants,
  segments,
  type Candidate,
  type Segment,
  type Source,
} from './segments';
export { why, type Explanation, type Reason } from './why';
export { changes, glances, programsOf, type Change, type Glance } from './glance';
export { itemFiles, itemLength, loopLength } from './durations';
export { NetworkForecast, type GroupForecast } from './network';
export { airTime, neverShown, whoIsAhead, type AirTime, type NeverShown, type Subject } from './airtime';
export { outcomeRows, outcomeRange, type OutcomeRow, type OutcomeSpan } from './outcome';
export { reach, type Reach } from './reach';
