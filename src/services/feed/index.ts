export { followNetwork, knownStatuses, missedSince, type FeedEvent, type Missed } from './hub';
