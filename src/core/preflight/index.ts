export { findings, type Finding, type FindingKind } from './findings';
export { type Fix } from './fixes';
export { newFindings } from './new-findings';
