export { followNetwork, knownStatuses, missedSince, type DocketSums, type FeedEvent, type Missed } from './hub';
