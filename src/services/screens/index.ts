export { collectToken, pairScreen, startPairing, unpairScreen } from './pairing';
export { flushHeartbeats, heartbeat, playerFile, playerOf, programText, targetOf, type Player } from './players';
export { StatusBoard, screenStatuses, stateOf, type ScreenState, type ScreenStatus, type StatusDelta } from './states';
export { playerBackend } from './backend';
