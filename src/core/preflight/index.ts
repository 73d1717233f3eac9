export { findings, type Finding, type FindingKind } from './findings';
