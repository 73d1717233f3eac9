export { edit, editWithin, lastChange, undo, type Edit, type EditResult } from './edits';
export { draftPlan, importPlan, type Draft } from './plan';
export { loadPlan } from './records';
export { slugFor } from './slug';
