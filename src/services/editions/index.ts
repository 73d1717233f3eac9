export { docket, type Docket, type DocketEntry } from './docket';
export { editions, publishAgain, publishEdition, publishedPlan, publishedPrograms, type Edition } from './editions';
