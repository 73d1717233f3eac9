export { broughtTo, type Brought, type BroughtBooking } from './brought';
export { cueEffect, reachedBy, waitingFor, type CueEffect } from './cue-effect';
export { darkHours, type DarkHours } from './dark-hours';
export { forecast, forecastAt, forecastDocument, type Forecast } from './forecast';
export { withoutProvenance, type Loop, type LoopItem } from './loop';
export {
  placeOf,
  namedZones,
  zonesOf,
  withFirings,
  type BackdropLevel,
  type Firing,
  type ProgramLayout,
  type ProgramWeave,
  type ScreenProgram,
} from './program';
export { programMaker, screenProgram } from './narrow';
export {
  drawnItems,
  loopsIn,
  musicPlays,
  segmentPlays,
  zoneLoops,
  layoutItems,
  zonePlays,
  type Play,
  type WholePlay,
  type ZonePlays,
} from './plays';
export { holds, isPresented, stepFrom, withStep, type Stepped } from './stepping';
export { drawnPlays, overlayItems, overlays, type OverlayTime } from './drawn';
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
export { changes, glances, programOf, programsOf, type Board, type Change, type Glance } from './glance';
export { itemFiles, itemLength, loopLength, soundLength } from './durations';
export { passesOf, type Pass, type Turn } from './passes';
export { NetworkForecast, type GroupForecast } from './network';
export { playlistsOn, type PlaylistOn } from './playlists-on';
export { leftOut, type LeftOutReason } from './left-out';
export { nextShown, type NextShown } from './next-shown';
export { airTime, type AirTime, type Subject } from './airtime';
export { contestsOf, hidersOf, type BookingState, type Contest } from './contest';
export { neverShown, whyNotShown, type NeverShown } from './never-shown';
export { outcomeRows, outcomeRange, type AboveSpan, type OutcomeRow, type OutcomeSpan } from './outcome';
export { drawnSize, misfits, newMisfits, standingOf, tooSmall, type Misfit, type Size, type Standing } from './fitting';
export { newUnplayable, unplayable, type Unplayable } from './unplayable';
export { reach, type Reach } from './reach';
