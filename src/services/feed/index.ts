export type { FeedChange, FeedChanges } from './changes';
export { followNetwork, knownStatuses, missedSince, type FeedEvent } from './hub';
