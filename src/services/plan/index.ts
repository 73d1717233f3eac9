export { edit, editWithin, lastChange, takeTurn, type Edit, type EditResult } from './edits';
export { draftPlan, importPlan, type Draft } from './plan';
export { loadPlan } from './records';
export { slugFor } from './slug';
export { UNDO_MS, nextActs, undo, type UndoResult, type Way } from './undo';
