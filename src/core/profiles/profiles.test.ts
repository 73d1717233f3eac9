import { readDocument } from '../plan';
import type { Profile } from '../plan/kinds/profile';
import { HOUR } from '../instant';
import { smallPlan } from '../tests/small-plan';
import { cantPlay } from './abilities';
import { SHIPPED_PROFILES, abilitiesIn, controlsOf, corrections, energyOf } from '.';

const profile = (given: Partial<Profile>): Profile => ({ id: 'p', name: 'P', ...given });
const video = { kind: 'video', width: 3840, height: 2160, codec: 'vp9' } as const;

test('a video that is made smaller for a screen is H.264 there, and as large as the screen', () => {
  const hall = { width: 1920, height: 1080 };
  expect(cantPlay(video, hall, { codecs: ['h264'], most: hall }, false)).toBeNull();
  expect(cantPlay(video, hall, { codecs: ['vp9'] }, false)).toBe('codec');
  // Pixel for pixel it comes as it is.
  expect(cantPlay(video, hall, { codecs: ['h264'] }, true)).toBe('codec');
  expect(cantPlay(video, hall, { most: hall }, true)).toBe('size');
  // On a screen that is about as large, too.
  const large = { width: 3600, height: 2000 };
  expect(cantPlay(video, large, { codecs: ['h264'] }, false)).toBe('codec');
  expect(cantPlay(video, large, { most: hall }, false)).toBe('size');
  // What nobody knows counts as possible.
  expect(cantPlay({ ...video, codec: undefined }, large, { codecs: ['h264'] }, false)).toBeNull();
  expect(cantPlay({ ...video, kind: 'image' }, hall, { most: hall, codecs: [] }, false)).toBeNull();
  expect(cantPlay({ ...video, kind: 'image' }, large, { most: hall }, false)).toBe('size');
});

test('a player that tells of itself corrects its profile, and says so', () => {
  const plan = smallPlan({
    profiles: [{ id: 'p', plays: ['image', 'video'], codecs: ['h264', 'hevc'] }],
    screens: [{ id: 'a', profile: 'p' }, { id: 'b', profile: 'p' }, 'c'],
  });
  const abilities = abilitiesIn(
    plan,
    new Map([['a', { kinds: ['image', 'video', 'sound'], codecs: ['h264', 'av1'] }]]),
  );
  expect(abilities.get('a')).toMatchObject({ plays: ['image', 'video', 'sound'], codecs: ['h264', 'av1'] });
  expect(abilities.get('b')).toMatchObject({ plays: ['image', 'video'], codecs: ['h264', 'hevc'] });
  expect(abilities.has('c')).toBe(false);

  const told = { kinds: ['image', 'sound'], codecs: ['h264'], can: ['volume', 'power'] } as const;
  expect(corrections(profile({ plays: ['image', 'video'], codecs: ['h264', 'hevc'], lacks: ['power'] }), told)).toEqual(
    [
      'The player says that it can’t play videos.',
      'The player says that it can play sound.',
      'The player says that it can’t play HEVC.',
      'The player says that it can do this: switching off.',
      ...['brightness', 'switching its input', 'restart', 'update', 'pictures of it'].map(
        (what) => `The player says that it can’t do this: ${what}.`,
      ),
    ],
  );
  expect(corrections(profile({}), told)).toEqual([]);
});

test('a display without loudspeakers plays no sound, until its player says otherwise', () => {
  const plan = smallPlan({
    profiles: [{ id: 'p', sound: false }],
    screens: [
      { id: 'a', profile: 'p' },
      { id: 'b', profile: 'p' },
    ],
  });
  const abilities = abilitiesIn(plan, new Map([['b', { kinds: ['image', 'sound'] }]]));
  const jingle = (id: string) => cantPlay({ kind: 'sound' }, { width: 1, height: 1 }, abilities.get(id) ?? {}, false);
  expect([jingle('a'), jingle('b')]).toEqual(['kind', null]);
});

test('a profile may say all that the plan format has for it', () => {
  const whole = {
    ...{
      id: 'mess-43',
      name: '43-inch mess display',
      plays: ['image', 'video', 'sound', 'page'],
      codecs: ['h264', 'hevc'],
    },
    ...{ most: { width: 3840, height: 2160, framesPerSecond: 60 }, layers: 2, sound: true, touch: false, keys: true },
    ...{ inputs: [{ id: 'hdmi-1', name: 'Mess television' }], storageBytes: 16e9, watts: { on: 95, off: 0.5 } },
    ...{ by: 'network', stillMs: 10_000, paper: null },
  } as const;
  expect(smallPlan({ profiles: [whole] }).profiles).toEqual([whole]);
});

test('before a player told, its profile says what can be done to it; after that it says so itself', () => {
  const lacking = profile({ lacks: ['volume', 'update'] });
  expect(controlsOf(lacking, undefined)).toEqual(['power', 'brightness', 'input', 'restart', 'glimpse']);
  expect(controlsOf(lacking, { can: ['volume'] })).toEqual(['volume']);
  expect(controlsOf(profile({}), undefined)).toBeNull();
});

test('a display uses less while it is off, unless it can only show black', () => {
  const watts = { on: 100, off: 2 };
  expect(energyOf(profile({ watts }), 168 * HOUR, 68 * HOUR)).toEqual({
    onMs: 100 * HOUR,
    usedKwh: 10.136,
    savedKwh: expect.closeTo(6.664),
  });
  expect(energyOf(profile({ watts, lacks: ['power'] }), 168 * HOUR, 68 * HOUR)).toMatchObject({ savedKwh: 0 });
  expect(energyOf(undefined, 168 * HOUR, 0)).toEqual({ onMs: 168 * HOUR, usedKwh: null, savedKwh: null });
});

test('the profiles to begin with can be added as they are', () => {
  for (const one of SHIPPED_PROFILES) expect(readDocument('profile', { id: 'x', ...one })).toMatchObject({ ok: true });
});
