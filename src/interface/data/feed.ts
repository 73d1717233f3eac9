import type { FeedEvent } from '@/services/feed';

/** What tabs tell each other: the events of the one stream that they share. */
const CHANNEL = 'lanternpost-feed';

/**
 * Calls `onEvent` for every event of the network's feed until the function that is returned is called. All tabs share one event
 * stream: the one that holds the lock listens and passes on, since a browser opens few connections to a server. Whoever begins to
 * listen is told `at`, and asks for what it has missed.
 */
export function listenFeed(onEvent: (event: FeedEvent) => void): () => void {
  const channel = new BroadcastChannel(CHANNEL);
  const ended = new AbortController();
  let source: EventSource | null = null;
  channel.onmessage = ({ data }: MessageEvent<FeedEvent>) => onEvent(data);
  const lead = () =>
    new Promise<void>((resolve) => {
      source = new EventSource('/api/live');
      source.onmessage = ({ data }: MessageEvent<string>) => {
        const event = JSON.parse(data) as FeedEvent;
        onEvent(event);
        channel.postMessage(event);
      };
      ended.signal.addEventListener('abort', () => resolve());
    });
  if ('locks' in navigator)
    navigator.locks.request(CHANNEL, { signal: ended.signal }, lead).catch((error: unknown) => {
      // Ended before its turn came: another tab leads.
      if (!ended.signal.aborted) throw error;
    });
  else void lead();
  return () => {
    ended.abort();
    source?.close();
    channel.close();
  };
}
