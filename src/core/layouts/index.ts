export { ARRANGEMENTS, arranged, type Arrangement } from './arrangements';
export {
  SAFE_MARGIN,
  bordersOf,
  limitsOf,
  measured,
  pulled,
  snapped,
  stopsFor,
  type Border,
  type Measure,
} from './borders';
export { isFree, type Axis, type Frame, type Placed, type Size } from './frame';
export { READ_FROM_M, USUAL_INCHES } from './legible';
export { layoutSeen, type LayoutSeen, type ZoneSeen } from './seen';
export { isTall, partnerOf } from './partner';
export { wantSound } from './sounds';
export { canSplit, freeZoneId, join, joinable, lifted, split, swapped } from './split';
export { largest, turnedSize, turnedZones } from './turn';
