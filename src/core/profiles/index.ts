export {
  REDUCED_BELOW,
  abilitiesIn,
  abilitiesOf,
  cantPlayWords,
  codecName,
  controlsOf,
  corrections,
  type Abilities,
  type CantPlay,
  type Told,
} from './abilities';
export type { Control } from '../plan/kinds/profile';
export { energyOf, type Energy } from './energy';
export { SHIPPED_PROFILES } from './shipped';
