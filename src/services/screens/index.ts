export { collectToken, pairScreen, startPairing, unpairScreen } from './pairing';
export { flushHeartbeats, heartbeat, playerFile, playerOf, programText, targetOf, type Player } from './players';
export { hurryScreens } from './hurry';
export { screenLines, type Line } from './lines';
export { StatusBoard, screenStatuses, type StatusDelta } from './states';
export type { ScreenState, ScreenStatus } from './status';
export { watchPilots } from './pilots';
export { playerBackend } from './backend';
