export { frameStrip, isFrame } from './frames';
export {
  acceptPairing,
  checkFiles,
  checkPairing,
  cleanUp,
  closeFolders,
  copyIn,
  copyOut,
  incomingPath,
  openToSend,
  privateFolder,
  storedBytes,
  storedPath,
  TRASH_DAYS,
  type Pairing,
} from './store';
export { libraryFile, mediaExtras, thumbnailOf, type MadeFor, type MediaExtras } from './media';
export { findInLibrary, libraryFacets, libraryTags, type Facets, type MediaPage, type MediaSearch } from './pages';
export { failRendition, fitted, makeRendition, renditionsOf, wantRenditions, type Rendition } from './fitted';
export { batchMedia, batchPreparing, batchSaid, describeBatch, type BatchInput, type BatchSaid } from './batches';
export { makePart, writePart } from './parts';
export type { Received } from './receive';
export { libraryRoom, limitLibrary, type Room } from './room';
export {
  beginUpload,
  cancelUpload,
  clearUploads,
  completeUpload,
  findSending,
  receiveUpload,
  type Sending,
} from './sending';
export { closeUploadLocks, uploadLocks } from './upload-lock';
export { removeSearch, saveSearch, savedSearches, type SavedSearch } from './searches';
export { bringBack, clearVersions, filesOfVersions, type Version } from './versions';
export { addFile, dismissUpload, failUpload, oneUpload, processUpload, uploads } from './uploads';
export { fileTrouble, type FileTrouble } from './trouble';
export type { Upload } from './rows';
