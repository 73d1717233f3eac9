export { findings, type Finding, type FindingKind } from './findings';
export { type Mend } from './mends';
