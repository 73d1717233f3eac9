import { getTimes } from 'suncalc';
import { HOUR, MINUTE, type Instant } from '../instant';
import { addDays, startOfDate, type LocalDate, type LocalTime } from './dates';
import { toInstant, toLocalTime, type ZoneTable } from './zone';

/** Where a site is, in degrees: north and east are positive. */
export interface Coordinates {
  readonly latitude: number;
  readonly longitude: number;
}

/** When the sun rises and sets on a date, as a clock there reads; a sunset after midnight is one of the evening before it. */
export interface SunTimes {
  readonly sunrise: LocalTime;
  readonly sunset: LocalTime;
}

const MOST_KNOWN = 2000;

/**
 * The sun over a place, by its clock, to the minute: when its upper edge is seen on a level horizon (altitude -0.833 degrees). Where it does
 * not rise on a date, both are at noon by the sun; where it does not set, they are at the midnights before and after. Within a minute of
 * an almanac up to 65 degrees north and south, some minutes off beside the days on which the sun begins to stay up or down.
 */
export function sunAt({ latitude, longitude }: Coordinates, zone: ZoneTable): (date: LocalDate) => SunTimes {
  const known = new Map<LocalDate, SunTimes>();
  const on = (date: LocalDate) =>
    getTimes(new Date(toInstant(zone, (startOfDate(date) + 12 * HOUR) as LocalTime)), latitude, longitude);
  const read = (at: Date) => toLocalTime(zone, (Math.round(at.getTime() / MINUTE) * MINUTE) as Instant);
  const find = (date: LocalDate): SunTimes => {
    const { sunrise, sunset, solarNoon, nadir, alwaysUp } = on(date);
    if (sunrise && sunset) return { sunrise: read(sunrise), sunset: read(sunset) };
    if (!alwaysUp) return { sunrise: read(solarNoon), sunset: read(solarNoon) };
    return { sunrise: read(nadir), sunset: read(on(addDays(date, 1)).nadir) };
  };
  return (date) => {
    let times = known.get(date);
    if (!times) {
      if (known.size >= MOST_KNOWN) known.clear();
      known.set(date, (times = find(date)));
    }
    return times;
  };
}
