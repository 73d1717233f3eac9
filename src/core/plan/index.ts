export * from './schema';
export { pointer, problemsOf, readPlan, referenceProblems, type Problem } from './read';
export * from './edit';
export * from './share';
export { planZones } from './zones';
