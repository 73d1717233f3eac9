export {
  FIELDS,
  differentFields,
  distanceOf,
  fieldsOf,
  verdictOf,
  type Fields,
  type Pixels,
  type Verdict,
} from './fields';
export { looksAt, type GlassLooks, type LayoutLook, type Look, type Looks } from './looks';
export { placedOn, zonePlacedOn, type Placed } from './placed';
