import { done, misread, type Result } from '../refusal';

/** A volume as people write it: "80", "80 %", "off", "full". Empty is silent. From 0 to 1; refused with a sentence where it is none. */
export function readVolume(text: string): Result<number> {
  const written = text.trim().toLowerCase();
  if (['', 'off', 'silent', 'mute', 'muted'].includes(written)) return done(0);
  if (['full', 'on'].includes(written)) return done(1);
  const found = /^(\d{1,3}(?:[.,]\d)?)\s*(?:%|percent|per cent)?$/.exec(written);
  const value = Number(found?.[1]?.replace(',', '.')) / 100;
  return value >= 0 && value <= 1 ? done(value) : misread('Write a volume from 0 to 100 %.');
}

/** "80", as `readVolume` reads it; empty for silent. */
export const volumeText = (volume: number | undefined): string =>
  volume ? String(Math.round(volume * 1000) / 10) : '';
