export { findings, type Finding, type FindingKind } from './findings';
export { type Fix } from './fixes';
export { besidesOf, type Besides } from './effects';
export { newFindings } from './new-findings';
