export { canonicalJson } from './canonical';
export { chosenPlan, type Along } from './choice';
export { diffPlans, joinedGroups, type Difference, type DifferenceGroup, type Shown } from './diff';
export {
  compilationSteps,
  compileEdition,
  type Asset,
  type ShownAsset,
  type CompiledBase,
  type CompiledEdition,
  type ProgramDocument,
} from './compile';
