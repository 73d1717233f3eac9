import { HOUR } from '../instant';
import type { Profile } from '../plan/kinds/profile';

/** What a display's hours come to in a time. */
export interface Energy {
  /** The time for which it is on, in milliseconds. */
  readonly onMs: number;
  /** In kilowatt-hours; null if the profile doesn't say what it uses. */
  readonly usedKwh: number | null;
  /** How much less than if it were always on, in kilowatt-hours; null if the profile doesn't say. */
  readonly savedKwh: number | null;
}

/**
 * What a display uses in a time of `spanMs` of which it is off for `offMs`. A display that can't be switched off shows black, and uses
 * as much as while it is on.
 */
export function energyOf(profile: Profile | undefined, spanMs: number, offMs: number): Energy {
  const { watts, lacks = [] } = profile ?? {};
  const onMs = spanMs - offMs;
  if (!watts) return { onMs, usedKwh: null, savedKwh: null };
  const kwh = (used: number, ms: number) => (used * ms) / HOUR / 1000;
  const always = kwh(watts.on, spanMs);
  const used = kwh(watts.on, onMs) + kwh(lacks.includes('power') ? watts.on : watts.off, offMs);
  return { onMs, usedKwh: used, savedKwh: always - used };
}
