export { clipProblem, clipProblems, clipText, readClip, type Clip } from './clips';
export { readDuration } from './duration';
export { durationWords, weaveWords } from './say';
export { readVolume, volumeText } from './volume';
export { readWeave, type Weave } from './weave';
export * from './schema';
export type { Names } from './kind';
export {
  MOST_OF_NAME,
  durationSchema,
  idSchema,
  instantSchema,
  lineSchema,
  nameSchema,
  selectorSchema,
  tagsSchema,
} from './fields';
export { contentSchema } from './content-schema';
export {
  CONTENTS,
  CONTENT_KINDS,
  DRAWN_KINDS,
  contentKey,
  drawnIn,
  drawnOnly,
  contentFrom,
  isContentKind,
  knownContent,
  type ContentKind,
  type Drawn,
  type DrawnKind,
  type KnownContent,
} from './contents';
export { isShown, knownItem } from './known';
export { KINDS } from './kinds';
export { ALL_KINDS, LISTED_KINDS, collectionOf, isKind, kindOf, referencesOf } from './registry';
export { linksOf } from './references';
export type { AnyDocument, Collection, DocumentOf, Kind, ListedKind } from './registry';
export { playlistSchema } from './kinds/playlist';
export { FITS, LONGEST_TRANSITION_MS, TRANSITIONS, transitionWords, type Fit, type Transition } from './looks';
export { layoutSchema, MOST_ZONES } from './kinds/layout';
export { boardSchema, BUTTON_COLOURS } from './kinds/board';
export { cueSchema, LATE_MS } from './kinds/cue';
export { bookingSchema } from './kinds/booking';
export { mediaSchema, type MediaKind, type ShownMedia } from './kinds/media';
export { CODECS, CONTROLS, CONTROL_WORDS, INKS, INK_WORDS, PLAYED_WORDS, profileSchema } from './kinds/profile';
export { screenSchema } from './kinds/screen';
export { siteSchema } from './kinds/site';
export { newEntryId, withEntryIds, type EntryPatch, type FieldConflict } from './entries';
export * from './object-keys';
export * from './patch';
export { pointer, problemsOf, readDocument, readPlan, referenceProblems, danglingMessage } from './read';
export { FORMAT, currentDocument, currentPlan } from './format';
export { planFile } from './file';
export { changeSentences, conflictSentence, fieldLabel, fieldSaid, namesIn } from './sentences';
export * from './share';
export { planZones } from './zones';
export {
  collectedBy,
  findMedia,
  mediaOf,
  readMediaSearch,
  rulesOf,
  sizeFit,
  usedMedia,
  withUsedMedia,
  type MediaSearchText,
  type WantedSize,
} from './library';
export { patchesSchema } from './patch-schema';
export { layoutProblems, reachingLayouts } from './layouts-within';
export { nestingProblems } from './nesting';
export { countTags, tagOf, tagsOf, type TagCount } from './tags';
