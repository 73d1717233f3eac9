export { FIELDS, differentFields, fieldsOf, verdictOf, type Fields, type Pixels, type Verdict } from './fields';
export { looksAt, type Look, type Looks } from './looks';
export { placedOn, type Placed } from './placed';
