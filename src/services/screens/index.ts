export { collectToken, pairScreen, pairScreens, startPairing, unpairScreen, type Pair } from './pairing';
export { flushHeartbeats, heartbeat, playerFile, playerOf, programText, targetOf, type Player } from './players';
export {
  endEnrolmentKey,
  giveScreens,
  makeEnrolmentKey,
  sendAway,
  tray,
  type EnrolmentKey,
  type Given,
  type Tray,
  type WaitingPlayer,
} from './enrolment';
export { clearPhotos, deleteScreenPhoto, screenPhoto, setScreenPhoto } from './photo';
export { playerPin, setPlayerPin } from './pin';
export { hurryScreens } from './hurry';
export { screenLines, type Line } from './lines';
export { StatusBoard, screenStatuses, watchedStatuses, type StatusDelta } from './states';
export type { ScreenState, ScreenStatus } from './status';
export { watchPilots } from './pilots';
export { playerBackend } from './backend';
