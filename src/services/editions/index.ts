export { clearEditions } from './clear';
export { docket, type Docket, type DocketEntry } from './docket';
export {
  editions,
  newestNumber,
  publishAgain,
  publishEdition,
  editionFor,
  publishedPlan,
  publishedPrograms,
  type Edition,
} from './editions';
