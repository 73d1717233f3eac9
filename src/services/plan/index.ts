export { changesSince, type FeedChange, type FeedChanges } from './changes';
export { edit, editWithin, lastChange, type EditResult } from './edits';
export type { Edit } from './merge';
export type { MediaFiles } from './media-files';
export { createNetwork } from './networks';
export { loadObjects, loadPlan } from './objects';
export { draftPlan, draftWithin, importPlan, lookAtPlan, type Draft, type PlanChange, type PlanLook } from './plan';
export {
  addPlaylistFile,
  freePlaylistName,
  playlistFile,
  type PlaylistFormat,
  type PlaylistRead,
} from './playlist-files';
export { guardsOf, refuseToFire, refuseToSend } from './guards';
export { slugFor } from './slug';
export { clearedFirings, inForceNow, type NamedFired } from './in-force';
export { inTurn, inTurnMakingWay, inUrgentTurn, takeTurn } from './turns';
export { UNDO_MS, nextActs, nextToTakeBack, undo, type UndoResult, type Way } from './undo';
