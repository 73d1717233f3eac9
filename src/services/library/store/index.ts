export { cleanUp, holdFiles, removeUnused, type CleanedUp } from './clean-up';
export { checkFiles, openToSend, type Checked } from './damage';
export {
  absent,
  adopt,
  closeFolders,
  copyIn,
  copyOut,
  incomingFolder,
  incomingPath,
  keep,
  mediaFolder,
  privateFolder,
  sendingFolder,
  storedBytes,
  storedPath,
  takeCopy,
  type Hashed,
} from './files';
export { acceptPairing, checkPairing, type Pairing } from './pairing';
export { TRASH_DAYS } from './trash';
