import type { Press } from '@/protocol/schemas';
import { Firings, type KeptFiring } from './firings';

/** Firings in a world of the test's own: what counts, what is sent, and what is kept. */
function world(kept: readonly KeptFiring[] = []) {
  const state = {
    now: 1_000_000,
    online: true,
    counts: [] as string[],
    sent: [] as string[],
    kept,
    mad: [] as string[],
    changes: 0,
  };
  let made = 0;
  const firings = new Firings(
    { save: (values) => Promise.resolve(void (state.kept = values.firings ?? state.kept)) },
    () => state.now,
    () => `own-${++made}`,
    (presses: readonly Press[]) => {
      if (!state.online) return Promise.reject(new Error('no line'));
      state.sent.push(
        ...presses.map(({ id, cue, end, touched }) => `${id} ${cue}${end ? ' end' : ''}${touched ? ' touched' : ''}`),
      );
      return Promise.resolve();
    },
    (list) => {
      state.changes++;
      state.counts = list.map(({ cue, at, end }) => `${end ? 'end ' : ''}${cue}@${at}`);
    },
    (cue) => state.mad.push(cue),
  );
  firings.resume(kept);
  return { state, firings };
}

const listed = (id: string, at: number, more: object = {}) => ({ id, cue: 'song', at, late: at + 60_000, ...more });
const settled = () => new Promise((resolve) => setImmediate(resolve));

test('what the server lists counts, what it no longer lists does not, and an older server changes nothing', () => {
  const { state, firings } = world();
  firings.follow([listed('a', 999_000), listed('b', 999_500, { end: true })]);
  expect(state.counts).toEqual(['song@999000', 'end song@999500']);
  firings.follow(undefined);
  expect(state.counts).toHaveLength(2);
  firings.follow([listed('a', 999_000)]);
  expect(state.counts).toEqual(['song@999000']);
  firings.follow([]);
  expect(state.counts).toEqual([]);
  expect(state.changes).toBe(3);
});

test('one that comes too late is passed over, for good; an end never is, nor what was heard in time', () => {
  const { state, firings } = world();
  firings.follow([listed('old', 900_000), listed('end', 900_000, { end: true }), listed('new', 999_000)]);
  expect(state.counts).toEqual(['end song@900000', 'song@999000']);
  state.now += 3_600_000;
  const again = world(state.kept);
  again.state.now = state.now;
  again.firings.follow([listed('old', 900_000), listed('new', 999_000)]);
  expect(again.state.counts).toEqual(['song@999000']);
});

test('a press counts at once and without a line, is told when there is one, and stays once when the server lists it', async () => {
  const { state, firings } = world();
  state.online = false;
  expect(firings.press('song', 'key')).toBe(true);
  expect(state.counts).toEqual(['song@1000000']);
  await settled();
  expect(state.sent).toEqual([]);
  const again = world(state.kept);
  again.firings.follow([]);
  await settled();
  expect(again.state.sent).toEqual(['own-1 song']);
  expect(again.state.counts).toEqual(['song@1000000']);
  again.firings.follow([listed('theirs', 1_000_000)]);
  expect(again.state.changes).toBe(1);
  expect(again.state.kept).toEqual([{ id: 'theirs', cue: 'song', at: 1_000_000 }]);
  await settled();
  expect(again.state.sent).toHaveLength(1);
});

test('what the server took and does not list was passed over there', async () => {
  const { state, firings } = world();
  firings.press('song', { layout: 'kiosk', zone: 'greet' });
  await settled();
  expect(state.sent).toEqual(['own-1 song touched']);
  state.now += 9_000;
  firings.follow([]);
  expect(state.counts).toHaveLength(1);
  state.now += 2_000;
  firings.follow([]);
  expect(state.counts).toEqual([]);
});

test('a press that counts elsewhere alone is told, and shows nothing here', async () => {
  const { state, firings } = world();
  firings.press('song', { layout: 'kiosk', zone: 'greet' }, { here: false });
  await settled();
  expect([state.counts, state.sent]).toEqual([[], ['own-1 song touched']]);
});

test('a finger that bounces is one press, and a panel gone mad is held up and said', async () => {
  const { state, firings } = world();
  for (let n = 0; n < 1000; n++) {
    state.now += 1;
    firings.press('song', 'key');
  }
  expect(state.counts).toHaveLength(4);
  for (let n = 0; n < 20; n++) {
    state.now += 301;
    firings.press('song', 'key');
  }
  await settled();
  expect(state.counts).toHaveLength(10);
  expect(state.mad.length).toBeGreaterThan(0);
  state.now += 10_001;
  // Two keys in quick turn are what they are.
  expect(['a', 'b', 'a'].map((cue) => firings.press(cue, 'key'))).toEqual([true, true, true]);
  expect(firings.press('song', 'key')).toBe(true);
});
