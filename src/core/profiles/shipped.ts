import type { Profile } from '../plan/kinds/profile';

/**
 * Profiles to begin with. They are made-up displays of common kinds, not products; sizes and watts are what such displays commonly have
 * (common practice, no source), so people put in what their own data sheet says.
 */
export const SHIPPED_PROFILES: readonly Omit<Profile, 'id'>[] = [
  {
    name: 'Display with a small computer',
    plays: ['image', 'video', 'sound'],
    codecs: ['h264', 'vp8', 'vp9', 'av1'],
    most: { width: 3840, height: 2160 },
    layers: 2,
    storageBytes: 32e9,
    watts: { on: 120, off: 1 },
  },
  {
    name: 'Display with a player inside',
    plays: ['image', 'video', 'sound'],
    codecs: ['h264', 'hevc'],
    most: { width: 1920, height: 1080 },
    inputs: [
      { id: 'hdmi-1', name: 'HDMI 1' },
      { id: 'hdmi-2', name: 'HDMI 2' },
    ],
    layers: 1,
    storageBytes: 4e9,
    watts: { on: 90, off: 0.5 },
    lacks: ['update'],
  },
  {
    name: 'Touch kiosk',
    plays: ['image', 'video', 'sound'],
    codecs: ['h264', 'vp8', 'vp9'],
    most: { width: 1920, height: 1920 },
    touch: true,
    layers: 2,
    storageBytes: 16e9,
    watts: { on: 70, off: 2 },
    lacks: ['brightness'],
  },
  {
    name: 'LED wall',
    plays: ['image', 'video'],
    layers: 1,
    sound: false,
    watts: { on: 600, off: 20 },
    lacks: ['volume', 'input'],
  },
  {
    name: 'Electronic paper',
    plays: ['image'],
    layers: 0,
    storageBytes: 64e6,
    lacks: ['power', 'volume', 'brightness', 'input', 'update'],
    paper: { inks: 'grey-16', refreshMs: 15_000, perRefreshMj: 900, idleMw: 0.05, batteryMwh: 18_000 },
  },
];
