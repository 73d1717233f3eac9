export { firedWhen, isAsFired, withByHand, type ByHand, type Fired } from './by-hand';
export { canonicalJson, canonicalWriter } from './canonical';
export { chosenPlan, type Along } from './choice';
export { guardedIn, newlyGuarded } from './guarded';
export { diffPlans, joinedGroups, type Difference, type DifferenceGroup, type Shown } from './diff';
export { readSiteTime, siteInstants, siteTime } from './site-time';
export {
  compilationSteps,
  compileEdition,
  type Asset,
  type ShownAsset,
  type CompiledBase,
  type CompiledEdition,
  type Digest,
  type MadeProgram,
  type ProgramDocument,
} from './compile';
