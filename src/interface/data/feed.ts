import type { FeedEvent } from '@/services/feed';

/** What tabs tell each other: the events of the one stream that they share. */
const CHANNEL = 'lanternpost-feed';
const AGAIN_MS = 5000;

/**
 * Calls `onEvent` for every event of the network's feed until the function that is returned is called. All tabs share one event
 * stream: the one that holds the lock listens and passes on, since a browser opens few connections to a server. Whoever begins to
 * listen is told `at`, and asks for what it has missed.
 */
export function listenFeed(onEvent: (event: FeedEvent) => void): () => void {
  const channel = new BroadcastChannel(CHANNEL);
  const ended = new AbortController();
  let source: EventSource | null = null;
  let again: ReturnType<typeof setTimeout> | undefined;
  channel.onmessage = ({ data }: MessageEvent<FeedEvent>) => onEvent(data);
  const tell = (event: FeedEvent) => {
    onEvent(event);
    channel.postMessage(event);
  };
  const open = () => {
    const stream = new EventSource('/api/live');
    source = stream;
    stream.onmessage = ({ data }: MessageEvent<string>) => tell(JSON.parse(data) as FeedEvent);
    stream.onerror = () => {
      // A line that breaks is opened again by the browser; an answer that is no stream (logged out, a proxy's excuse) is not.
      if (stream.readyState !== EventSource.CLOSED) return;
      tell({ kind: 'at', change: 0 });
      again = setTimeout(open, AGAIN_MS);
    };
  };
  const lead = () =>
    new Promise<void>((resolve) => {
      open();
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
    clearTimeout(again);
    source?.close();
    channel.close();
  };
}
