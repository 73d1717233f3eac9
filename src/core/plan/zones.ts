import { clocksOf } from '../when/sets-of-hours';
import type { Plan } from './schema';

/** Every zone whose clock a plan reads: its sites' and those that times are pinned to, in order of names. */
export function planZones(plan: Plan): string[] {
  const whens = [
    ...plan.bookings.map((one) => one.when),
    ...plan.playlists.flatMap((list) => list.items.map((item) => item.when)),
    ...plan.layouts.flatMap((layout) => layout.zones.map((zone) => zone.when)),
    ...plan.media.map((file) => file.when),
    ...plan.screens.flatMap((screen) => screen.lightsOut ?? []),
  ];
  const pinned = whens.flatMap((when) => (when ? clocksOf(when) : []));
  return [...new Set([...plan.sites.map((site) => site.timeZone), ...pinned])].sort();
}
