export { screenDay } from './screen-day';
export { arrivals, countArrivals, noteReached, type Arrival, type Playing } from './arrivals';
export { clearEditions, keep, kept, type Kept } from './clear';
export { docket, docketChoice, type Docket, type DocketChoice, type DocketEntry, type Fetches } from './docket';
export { endPutOn, putOn, type IsPutOn, type PuttingOn } from './put-on';
export { movePlanned, planEdition, publishDue, type PlannedFor } from './planned';
export { pilotEdition, runningPilots, settlePilot, type Piloting, type RunningPilot, type Verdict } from './pilot';
export type { GoesOut } from './reach';
export { callOffPlanned, plannedEditions, plannedPlan, publishPlanned, type Planned } from './waiting';
export { allClear, drillTakeover, fireTakeover, type ByWhom } from './takeovers';
export { firingScreens, firings, noteShown, type Firing, type ShownOn } from './firings';
export { setFirers, takeovers, type Takeovers } from './firers';
export { takeBack } from './take-back';
export { askToPublish, clearRequests, requests, sendBack, withdrawRequest, type PublishRequest } from './requests';
export {
  editionAt,
  editionPlan,
  editions,
  editionFor,
  publishedPlan,
  publishedPrograms,
  type Edition,
  type OutThen,
} from './editions';
export { deliveredPrograms, givenAt, givenIn, programOf, type NetworkGiven } from './given';
export { newestNumber, newestPlan } from './frozen';
export { planAgain, publishAgain, publishEdition, type Publishing } from './publish';
export { deliverAgain } from './deliver-again';
