import type { Instant } from '../instant';
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

/** A part of a layout that exists on a screen, in pixels of the layout. */
export interface ProgramZone {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** What shows in it: an index into the program's loops; -1 where nothing of it is for this screen. */
  readonly loop: number;
  /** Its clock starts with the winning occurrence; otherwise with each showing of the layout. */
  readonly goesOn?: true | undefined;
  /** What a touch on it fires; `here`: on this screen too. */
  readonly touch?: { readonly cue: string; readonly here?: true | undefined } | undefined;
}

/** A layout as one screen sees it: its zones, a later one above an earlier one. */
export interface ProgramLayout {
  readonly width: number;
  readonly height: number;
  /** A colour as `#1B2330`; absent: black. */
  readonly background?: string | undefined;
  readonly zones: readonly ProgramZone[];
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
  /** It waits for firings of this cue, and has no occurrences by the clock. */
  readonly cue?: string | undefined;
  /** How long each firing lasts; absent: one round. */
  readonly forMs?: number | undefined;
}

/** That a cue was fired, or with `end` ended, at an instant, as one screen knows it: a fact beside the plan (domain section 11). */
export interface Firing {
  readonly cue: string;
  readonly at: Instant;
  readonly end?: true | undefined;
}

/** A number key of the screen's remote control or keyboard, what it fires, and how that is called. */
export interface ProgramKey {
  readonly key: number;
  readonly cue: string;
  readonly name: string;
}

/** A layout that is drawn over whatever plays, never competing with it. */
export interface ProgramOverlay {
  readonly id: string;
  readonly priority: number;
  readonly created: number;
  readonly when: When;
  readonly layout: string;
  readonly overTakeovers?: true | undefined;
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

/** What a bulletin says, as a screen draws it. */
export interface ProgramBulletin {
  readonly kind: string;
  readonly text: string;
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
  /** By id, those that its loops and overlays show; absent where there are none. */
  readonly layouts?: Readonly<Record<string, ProgramLayout>> | undefined;
  /** By id, what bulletins that its loops show are drawn from; absent where there are none. */
  readonly bulletins?: Readonly<Record<string, ProgramBulletin>> | undefined;
  /** Absent where there are none. */
  readonly overlays?: readonly ProgramOverlay[] | undefined;
  /** Absent where no key brings anything; one that brings nothing itself ends what the others brought. */
  readonly keys?: readonly ProgramKey[] | undefined;
  /** Where an input isn't connected its backdrop shows, and in a zone nothing; absent: a card that says so. */
  readonly withoutInput?: 'backdrop' | undefined;
  /** The arrow keys at the screen step through what plays; after so long without one it goes on by the clock, in milliseconds. */
  readonly stepRestMs?: number | undefined;
  /** What was fired, ascending: put beside the program for a forecast (`withFirings`), and no part of what is sent. */
  readonly firings?: readonly Firing[] | undefined;
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
    ...[...program.bookings, ...(program.weaves ?? []), ...(program.overlays ?? [])].map((one) => one.when),
    ...program.lightsOut,
    ...program.loops.flatMap(conditionsOf),
    ...(program.music ?? []).flatMap((one) => (one ? conditionsOf(one.loop) : [])),
  ];
  return [...new Set(used.flatMap(clocksOf))];
}

/** A program with what was fired on its screen. Forecasts of it, and all that is asked of them, then know it. */
export const withFirings = <P extends ScreenProgram>(program: P, firings: readonly Firing[]): P => ({
  ...program,
  firings: [...firings].sort((a, b) => a.at - b.at),
});

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
