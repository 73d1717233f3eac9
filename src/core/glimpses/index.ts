export {
  FIELDS,
  differentFields,
  distanceOf,
  fieldsIn,
  fieldsOf,
  verdictOf,
  type Fields,
  type Pixels,
  type Verdict,
} from './fields';
export { looksAt, type GlassLooks, type LayoutLook, type Look, type Looks } from './looks';
export { placedIn, placedOn, zonePlacedIn, type Placed } from './placed';
