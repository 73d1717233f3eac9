export { followNetwork, knownStatuses, missedSince, type FeedEvent } from './hub';
