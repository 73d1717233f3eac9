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
    largestVideo: { width: 3840, height: 2160 },
    layers: 'several',
    storageMb: 32_000,
    power: { onW: 120, offW: 1 },
  },
  {
    name: 'Display with a player inside',
    plays: ['image', 'video', 'sound'],
    codecs: ['h264', 'hevc'],
    largestImage: { width: 3840, height: 2160 },
    largestVideo: { width: 1920, height: 1080 },
    inputs: [
      { id: 'hdmi-1', name: 'HDMI 1' },
      { id: 'hdmi-2', name: 'HDMI 2' },
    ],
    layers: 'one',
    storageMb: 4000,
    power: { onW: 90, offW: 0.5 },
    lacks: ['update'],
  },
  {
    name: 'Touch kiosk',
    plays: ['image', 'video', 'sound'],
    codecs: ['h264', 'vp8', 'vp9'],
    largestVideo: { width: 1920, height: 1920 },
    touch: true,
    layers: 'several',
    storageMb: 16_000,
    power: { onW: 70, offW: 2 },
    lacks: ['brightness'],
  },
  {
    name: 'LED wall',
    plays: ['image', 'video'],
    layers: 'one',
    power: { onW: 600, offW: 20 },
    lacks: ['volume', 'input'],
  },
  {
    name: 'Electronic paper',
    plays: ['image'],
    layers: 'one',
    storageMb: 64,
    lacks: ['power', 'volume', 'brightness', 'input', 'update'],
    paper: { inks: 'grey-16', refreshMs: 15_000, perRefreshMj: 900, idleMw: 0.05, batteryMwh: 18_000 },
  },
];
