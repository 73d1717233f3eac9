export { cleanUp } from './clean-up';
export { libraryFile, mediaExtras, thumbnailOf, type MediaExtras } from './media';
export { findInLibrary, libraryTags, type MediaPage, type MediaSearch } from './pages';
export {
  addFile,
  dismissUpload,
  failUpload,
  processUpload,
  receiveUpload,
  uploads,
  type Received,
  type Upload,
} from './uploads';
export { read as readFile, storedBytes, storedPath } from './store';
