import type { Happening } from '@/services/live';

const HINTS: readonly Happening[] = ['changes', 'edition', 'players', 'uploads', 'player', 'resync'];

/**
 * Calls `onHint` for every hint until the function that is returned is called. All tabs share one event stream: the one
 * that holds the lock listens and passes on, since a browser opens few connections to a server.
 */
export function listenLive(onHint: (hint: Happening) => void): () => void {
  const channel = new BroadcastChannel('lanternpost-live');
  const ended = new AbortController();
  let source: EventSource | null = null;
  channel.onmessage = (message: MessageEvent<Happening>) => onHint(message.data);
  const lead = () =>
    new Promise<void>((resolve) => {
      source = new EventSource('/api/live');
      let opened = false;
      source.onopen = () => {
        if (opened) tell('resync');
        opened = true;
      };
      const tell = (hint: Happening) => {
        onHint(hint);
        channel.postMessage(hint);
      };
      for (const hint of HINTS) source.addEventListener(hint, () => tell(hint));
      ended.signal.addEventListener('abort', () => resolve());
    });
  if ('locks' in navigator)
    navigator.locks.request('lanternpost-live', { signal: ended.signal }, lead).catch(() => undefined);
  else void lead();
  return () => {
    ended.abort();
    source?.close();
    channel.close();
  };
}
