import { SetClock, type Machine } from './use-server-clock';

/** A machine whose clock is off, before a server that takes its time. All in milliseconds. */
function machine({ off, wayThere = 20, wayBack = 20 }: { off: number; wayThere?: number; wayBack?: number }) {
  const state = { time: 1_000_000, off, asked: 0, cut: false, slept: 0, wayThere, wayBack };
  const own: Machine = {
    now: () => state.time + state.slept + state.off,
    passed: () => state.time,
    ask: async () => {
      state.asked++;
      if (state.cut) throw new Error('no line');
      state.time += state.wayThere;
      const told = state.time + state.slept;
      state.time += state.wayBack;
      return told;
    },
  };
  return { state, own };
}

test('a page that took half a minute to load is set right at once, and not looked at again for minutes', async () => {
  const { state, own } = machine({ off: 7_000 });
  const clock = new SetClock(state.time - 30_000, own);
  expect(clock.now - state.time).toBe(-30_000);
  await clock.tick();
  expect(clock.now - state.time).toBe(0);
  const { asked } = state;
  state.time += 60_000;
  await clock.tick();
  expect(state.asked).toBe(asked);
  state.time += 300_000;
  state.off += 200;
  await clock.tick();
  expect([state.asked > asked, clock.now - state.time]).toEqual([true, 0]);
});

test('a slow answer does not undo a quick one; of a way that is longer there than back, half the difference is lost at most', async () => {
  const { state, own } = machine({ off: -3_000, wayThere: 10, wayBack: 10 });
  const clock = new SetClock(state.time, own);
  await clock.tick();
  state.wayThere = 4_000;
  state.time += 300_000;
  await clock.tick();
  expect(Math.abs(clock.now - state.time)).toBeLessThanOrEqual(1);
});

test('a clock that is set, and a machine that slept, are noticed in a second', async () => {
  const { state, own } = machine({ off: 0 });
  const clock = new SetClock(state.time, own);
  await clock.tick();
  state.time += 1_000;
  state.off = 3_600_000;
  await clock.tick();
  expect(clock.now - state.time).toBe(0);
  // While a machine sleeps its seconds stand still, and its clock goes on.
  state.time += 1_000;
  state.slept = 7_200_000;
  await clock.tick();
  expect(clock.now - state.time - state.slept).toBe(0);
});

test('without a line it goes on by its own seconds, and asks again soon', async () => {
  const { state, own } = machine({ off: 500 });
  state.cut = true;
  const clock = new SetClock(state.time - 2_000, own);
  await clock.tick();
  expect(clock.now - state.time).toBe(-2_000);
  state.cut = false;
  state.time += 11_000;
  await clock.tick();
  expect(clock.now - state.time).toBe(0);
});
