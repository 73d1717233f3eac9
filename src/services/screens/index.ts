export { collectToken, pairScreen, startPairing, unpairScreen } from './pairing';
export { flushHeartbeats, heartbeat, playerFile, playerOf, programText, targetOf, type Player } from './players';
export { screenStatuses, stateOf, type ScreenState, type ScreenStatus } from './states';
export { playerBackend } from './backend';
