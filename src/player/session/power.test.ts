import type { Hardware } from '../hardware/hardware';
import { keepPower } from './power';

/** Looks so many times, with a display that refuses while `isBroken` says so; what it was asked, and how long was waited after each look. */
async function looks(resting: readonly boolean[], isBroken: (look: number) => boolean = () => false, can = ['power']) {
  const ended = new AbortController();
  const asked: (boolean | 'failed')[] = [];
  const waits: number[] = [];
  const hardware = {
    abilities: () => can,
    setPower: async (isOn: boolean) => {
      if (isBroken(waits.length)) throw new Error('It stays on.');
      asked.push(isOn);
    },
  } as unknown as Hardware;
  const world = {
    wait: async (ms: number) => {
      waits.push(ms);
      if (waits.length === resting.length) ended.abort();
    },
  };
  const isResting = () => resting[waits.length] === true;
  await keepPower(hardware, isResting, world, ended.signal, () => asked.push('failed'));
  return { asked, waits };
}

test('a display is off in lights-out and on otherwise; it is asked once each time, and once at the start', async () => {
  const { asked } = await looks([false, false, true, true, false]);
  expect(asked).toEqual([true, false, true]);
});

test('what fails is told and tried again a minute later', async () => {
  const { asked, waits } = await looks([true, true, true], (look) => look === 0);
  expect(asked).toEqual(['failed', false]);
  expect(waits).toEqual([60_000, 5000, 5000]);
});

test('a display that can’t be switched off is left alone', async () => {
  expect((await looks([true, false], undefined, [])).asked).toEqual([]);
});
