import type { OpeningHours, When } from '../plan/schema';
import {
  calendarDates,
  clocksOf,
  sunAt,
  zoneTable,
  type Coordinates,
  type LocalDate,
  type Place,
  type ZoneTable,
} from '../when';
import { conditionsOf, type Loop, type Order } from './loop';

/** Sound beside a loop, from 0 to 1 of its loudness: a loop of its own, whose passes go from the occurrence's start. */
export interface ProgramMusic {
  readonly loop: Loop;
  readonly order?: Order | undefined;
  readonly volume: number;
}

/** A booking as one screen sees it: `loop` is an index into the program's loops. */
export interface ProgramBooking {
  readonly id: string;
  readonly priority: number;
  readonly takeover?: true | undefined;
  readonly wake?: true | undefined;
  /** What is seen is marked as a drill. */
  readonly drill?: true | undefined;
  readonly created: number;
  readonly when: When;
  readonly loop: number;
}

/** A booking that is mixed into the loop of whatever wins (domain section 9): a share of its time, or one turn every so long. */
export interface ProgramWeave {
  readonly id: string;
  readonly priority: number;
  readonly when: When;
  readonly loop: number;
  /** From 0.001 to 0.9. */
  readonly share?: number | undefined;
  /** In milliseconds. */
  readonly every?: number | undefined;
}

export type BackdropLevel = 'screen' | 'site' | 'network';

/** The plan as narrowed to one screen: selectors, nesting, collecting rules and names are resolved away. */
export interface ScreenProgram {
  readonly zone: string;
  readonly hours?: OpeningHours | undefined;
  /** Where the site is; absent where nothing of it follows the sun. */
  readonly location?: Coordinates | undefined;
  readonly calendars: Readonly<Record<string, readonly (string | readonly [string, string])[]>>;
  readonly loops: readonly Loop[];
  /** For each loop how its passes are put in order, null where they are as listed; absent where all are. */
  readonly orders?: readonly (Order | null)[] | undefined;
  /** For each loop the sound beside it, null where there is none; absent where no loop has any. */
  readonly music?: readonly (ProgramMusic | null)[] | undefined;
  readonly bookings: readonly ProgramBooking[];
  /** Absent where there are none. */
  readonly weaves?: readonly ProgramWeave[] | undefined;
  readonly backdrops: readonly { readonly level: BackdropLevel; readonly loop: number }[];
  readonly lightsOut: readonly When[];
  /** The clocks' changes that it is read by; absent: the runtime's own. A player's own zone data may be old. */
  readonly zones?: Readonly<Record<string, ZoneTable>> | undefined;
}

/** Every zone whose clock a program reads. */
export const zonesOf = (program: ScreenProgram): string[] =>
  [...new Set([program.zone, ...namedZones(program)])].sort();

/** The zones that are named in a program, besides its own. */
export function namedZones(program: ScreenProgram): string[] {
  const used = [
    ...[...program.bookings, ...(program.weaves ?? [])].map((one) => one.when),
    ...program.lightsOut,
    ...program.loops.flatMap(conditionsOf),
    ...(program.music ?? []).flatMap((one) => (one ? conditionsOf(one.loop) : [])),
  ];
  return [...new Set(used.flatMap(clocksOf))];
}

const places = new WeakMap<ScreenProgram, Place>();

/** Where a program's times are read: by its own zones where it carries them, else by the runtime's. */
export function placeOf(program: ScreenProgram): Place {
  let place = places.get(program);
  if (!place) {
    const table = (name: string) => program.zones?.[name] ?? zoneTable(name);
    const sets = new Map<string, ReadonlySet<LocalDate>>();
    place = {
      zone: table(program.zone),
      hours: program.hours,
      sun: program.location && sunAt(program.location, table(program.zone)),
      zoneTable: table,
      calendar: (id) => {
        let set = sets.get(id);
        if (!set) sets.set(id, (set = calendarDates(program.calendars[id] ?? [])));
        return set;
      },
    };
    places.set(program, place);
  }
  return place;
}
