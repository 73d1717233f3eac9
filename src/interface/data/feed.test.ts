import type { FeedEvent } from '@/services/feed';
import { listenFeed } from './feed';

/** Tabs of one browser: channels of one name hear each other, one holds a lock at a time, streams are counted. */
class Channel {
  static open = new Set<Channel>();
  onmessage: ((event: { data: unknown }) => void) | null = null;
  constructor(readonly name: string) {
    Channel.open.add(this);
  }
  postMessage(data: unknown) {
    for (const one of Channel.open) if (one !== this && one.name === this.name) one.onmessage?.({ data });
  }
  close() {
    Channel.open.delete(this);
  }
}

class Stream {
  static readonly CLOSED = 2;
  static open: Stream[] = [];
  readyState = 1;
  onerror: (() => void) | null = null;
  onmessage: ((event: { data: string }) => void) | null = null;
  constructor(readonly url: string) {
    Stream.open.push(this);
  }
  close() {
    Stream.open = Stream.open.filter((one) => one !== this);
  }
}

class Locks {
  private last: Promise<unknown> = Promise.resolve();
  request(_name: string, { signal }: { signal: AbortSignal }, work: () => Promise<void>): Promise<void> {
    const turn = this.last.then(() => {
      if (signal.aborted) throw new DOMException('aborted', 'AbortError');
      return work();
    });
    this.last = turn.catch(() => undefined);
    return turn;
  }
}

const settled = async () => {
  for (let i = 0; i < 5; i++) await new Promise(setImmediate);
};
const tell = (event: FeedEvent) => Stream.open[0]?.onmessage?.({ data: JSON.stringify(event) });
const RELOAD: FeedEvent = { kind: 'reload' };

const before = { BroadcastChannel: globalThis.BroadcastChannel, navigator: globalThis.navigator };
const browser = (locks?: Locks) => {
  Object.assign(globalThis, { BroadcastChannel: Channel, EventSource: Stream });
  Object.defineProperty(globalThis, 'navigator', { value: locks ? { locks } : {}, configurable: true });
};
afterEach(() => {
  Channel.open.clear();
  Stream.open = [];
  Object.assign(globalThis, { BroadcastChannel: before.BroadcastChannel });
  Object.defineProperty(globalThis, 'navigator', { value: before.navigator, configurable: true });
});

test('tabs share one stream: the first listens and passes on; when it goes, the next one does', async () => {
  browser(new Locks());
  const heard: [string, FeedEvent][] = [];
  const stops = ['one', 'two', 'three'].map((tab) => listenFeed((event) => heard.push([tab, event])));
  await settled();
  expect(Stream.open.map(({ url }) => url)).toEqual(['/api/live']);
  tell(RELOAD);
  expect(heard.map(([tab]) => tab).sort()).toEqual(['one', 'three', 'two']);
  expect(heard[0]?.[1]).toEqual(RELOAD);
  // The second waits for its turn, and goes before it comes.
  stops[1]?.();
  stops[0]?.();
  await settled();
  expect(Stream.open).toHaveLength(1);
  heard.length = 0;
  tell(RELOAD);
  expect(heard).toEqual([['three', RELOAD]]);
  stops[2]?.();
  await settled();
  expect([Stream.open.length, Channel.open.size]).toEqual([0, 0]);
});

test('a browser without locks has a stream a tab', async () => {
  browser();
  const stops = [listenFeed(() => undefined), listenFeed(() => undefined)];
  await settled();
  expect(Stream.open).toHaveLength(2);
  stops.forEach((stop) => stop());
  expect(Stream.open).toHaveLength(0);
});

test('a stream that is answered by something else is asked for again, and what was missed with it; a broken line is the browser’s affair', async () => {
  jest.useFakeTimers({ doNotFake: ['setImmediate'] });
  browser();
  const heard: FeedEvent[] = [];
  const stop = listenFeed((event) => heard.push(event));
  const [first] = Stream.open;
  first?.onerror?.();
  expect([heard, jest.getTimerCount()]).toEqual([[], 0]);
  Object.assign(first ?? {}, { readyState: Stream.CLOSED });
  first?.onerror?.();
  expect(heard).toEqual([{ kind: 'at', change: 0 }]);
  jest.advanceTimersByTime(5000);
  expect(Stream.open).toHaveLength(2);
  const second = Stream.open[1];
  Object.assign(second ?? {}, { readyState: Stream.CLOSED });
  second?.onerror?.();
  stop();
  expect(jest.getTimerCount()).toBe(0);
  jest.useRealTimers();
});
