import { Sender, type Courier, type Listener, type Parcel } from './sender';

/** A sender whose files go as the test says. */
function sending() {
  const ways = new Map<string, { listener: Listener; does: string[] }>();
  const kept = new Set<string>();
  let ids = 0;
  let now = 0;
  const sender = new Sender(
    ({ file }: Parcel, listener): Courier => {
      const does: string[] = [];
      ways.set(file.name, { listener, does });
      return {
        start: () => void does.push('start'),
        stop: () => void does.push('stop'),
        cancel: () => void does.push('cancel'),
      };
    },
    { put: ({ key }) => void kept.add(key), drop: (key) => void kept.delete(key) },
    () => `id-${++ids}`,
    () => now,
  );
  const files = () => sender.state.getState().files;
  return {
    sender,
    ways,
    kept,
    standings: () => Object.fromEntries(files().map(({ name, standing }) => [name, standing])),
    key: (name: string) => files().find((one) => one.name === name)?.key ?? '',
    file: (name: string) => files().find((one) => one.name === name),
    pass: (ms: number) => {
      now += ms;
      jest.advanceTimersByTime(ms);
    },
  };
}

const file = (name: string, bytes = 1000) => new File([new Uint8Array(bytes)], name);

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('three go at once, the next when one is in or refused', () => {
  const { sender, ways, standings } = sending();
  sender.add(['a', 'b', 'c', 'd', 'e'].map((name) => file(name)));
  expect(standings()).toEqual({ a: 'sending', b: 'sending', c: 'sending', d: 'waiting', e: 'waiting' });
  ways.get('b')?.listener.done(null);
  ways.get('c')?.listener.refused('No picture.');
  expect(standings()).toEqual({ a: 'sending', b: 'in', c: 'refused', d: 'sending', e: 'sending' });
});

test('what was refused says why, is not taken up by the next page, and is tried again on demand', () => {
  const { sender, ways, kept, standings, key, file: known } = sending();
  sender.add([file('a')]);
  ways.get('a')?.listener.refused('This file is empty. Choose another.');
  expect(known('a')?.said).toBe('This file is empty. Choose another.');
  expect(kept.size).toBe(0);
  sender.resume(key('a'));
  expect(standings()).toEqual({ a: 'sending' });
  expect(ways.get('a')?.does).toEqual(['start', 'start']);
});

test('a file that is paused leaves its place to the next, and goes on where it is', () => {
  const { sender, ways, standings, key } = sending();
  sender.add(['a', 'b', 'c', 'd'].map((name) => file(name)));
  sender.pause(key('a'));
  expect(standings()).toMatchObject({ a: 'paused', d: 'sending' });
  sender.resume(key('a'));
  expect(standings().a).toBe('waiting');
  ways.get('d')?.listener.done(null);
  expect(ways.get('a')?.does).toEqual(['start', 'stop', 'start']);
});

test('all are paused and gone on with, and cancelled with what the server has of them', () => {
  const { sender, ways, kept, standings } = sending();
  sender.add(['a', 'b', 'c', 'd'].map((name) => file(name)));
  sender.pauseAll();
  expect(new Set(Object.values(standings()))).toEqual(new Set(['paused']));
  sender.resumeAll();
  expect(standings()).toEqual({ a: 'sending', b: 'sending', c: 'sending', d: 'waiting' });
  sender.cancelAll();
  expect(standings()).toEqual({});
  expect(ways.get('a')?.does.at(-1)).toBe('cancel');
  expect(kept.size).toBe(0);
});

test('a broken line is told, and over with the next progress', () => {
  const { sender, ways, standings } = sending();
  sender.add([file('a')]);
  ways.get('a')?.listener.stalled();
  expect(standings().a).toBe('stalled');
  sender.wake();
  expect(ways.get('a')?.does).toEqual(['start', 'stop', 'start']);
  ways.get('a')?.listener.progress(10);
  expect(standings().a).toBe('sending');
});

test('numbers are told some times a second, with the speed of all together', () => {
  const { sender, ways, pass, file: known } = sending();
  sender.add([file('a', 100_000), file('b', 100_000)]);
  pass(250);
  for (let i = 1; i <= 8; i++) {
    ways.get('a')?.listener.progress(i * 1000);
    ways.get('b')?.listener.progress(i * 500);
    pass(250);
  }
  expect(known('a')?.sent).toBe(8000);
  expect(sender.state.getState().speed).toBeCloseTo(6000, 0);
  ways.get('a')?.listener.done(null);
  ways.get('b')?.listener.done(null);
  expect(sender.state.getState().speed).toBeNull();
});

test('files that come later are of the same batch, until it is closed', () => {
  const { sender, ways } = sending();
  sender.add([file('a')]);
  const { batch } = sender.state.getState();
  sender.add([file('b')]);
  expect(sender.state.getState().batch).toBe(batch);
  ways.get('a')?.listener.done('Pier');
  sender.close();
  expect(sender.state.getState()).toMatchObject({ batch, files: [{ name: 'b' }] });
  ways.get('b')?.listener.done(null);
  sender.close();
  expect(sender.state.getState()).toEqual({ batch: null, files: [], speed: null });
  sender.add([file('c')]);
  expect(sender.state.getState().batch).not.toBe(batch);
});

test('what an earlier page sent goes on; what is lost waits to be chosen again, and is known then', () => {
  const { sender, standings } = sending();
  sender.goOn([{ key: 'k', batch: 'b', file: file('a') }], [{ key: 'l', name: 'Long.mp4', bytes: 4000 }], 'b');
  expect(standings()).toEqual({ a: 'sending', 'Long.mp4': 'lost' });
  sender.add([file('Long.mp4', 4000)]);
  expect(standings()).toEqual({ a: 'sending', 'Long.mp4': 'sending' });
  expect(sender.state.getState().batch).toBe('b');
});
