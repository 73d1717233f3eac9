export { screenDay } from './screen-day';
export { clearEditions, keep, kept, type Kept } from './clear';
export { docket, docketChoice, type Docket, type DocketChoice, type DocketEntry, type Fetches } from './docket';
export { endPutOn, putOn, type IsPutOn, type PuttingOn } from './put-on';
export { takeBack } from './take-back';
export {
  editionAt,
  editionPlan,
  editions,
  newestNumber,
  publishAgain,
  publishEdition,
  editionFor,
  publishedPlan,
  deliveredPrograms,
  publishedPrograms,
  type Edition,
  type Publishing,
  type OutThen,
} from './editions';
export { deliverAgain } from './deliver';
