import { searchable } from '@/core/text';
import type { PairingPlace } from '../places';

/** A list of codes that players show, and the places that they are for. */

/** One line: a code, and its screen (or display of a wall), or what is wrong. */
export interface Line {
  readonly code: string;
  /** What was written beside the code; empty: none, so that the line gets the next free screen. */
  readonly named: string;
  readonly screen: string | null;
  readonly problem: string | null;
}

/** A code as people type it: eight consonants, with a dash or a space in the middle, in any case. So no name is taken for one. */
const CODE = /(?<![\p{L}\d])([bcdfghj-np-tv-xz]{4})[-–\s]?([bcdfghj-np-tv-xz]{4})(?![\p{L}\d])/iu;
/** Between the fields of a line from a spreadsheet. */
const BETWEEN = /[,;\t"]+/g;

/**
 * Reads a list of codes, a line each, with or without the screen beside it: "BCDF-GHJK Departure hall", also as CSV in either order. A line
 * without a screen gets the next free place, in their order; a wall alone its next free display. `chosen` are places that a person chose for codes.
 */
export function readPairings(
  text: string,
  places: readonly PairingPlace[],
  chosen: ReadonlyMap<string, string> = new Map(),
): Line[] {
  const given = new Set<string>();
  const read = text.split('\n').flatMap((line): Line[] => {
    const words = line.replace(BETWEEN, ' ').trim();
    if (words === '') return [];
    const found = CODE.exec(words);
    if (!found) return [{ code: words, named: '', screen: null, problem: 'A code has eight letters, like BCDF-GHJK.' }];
    const code = `${found[1]}-${found[2]}`.toUpperCase();
    const named = words.replace(found[0], ' ').replace(/\s+/g, ' ').trim();
    const own = chosen.get(code);
    if (own !== undefined) return [{ code, named, screen: own, problem: null }];
    if (named === '') return [{ code, named, screen: null, problem: null }];
    const meant = places.filter((place) => isMeant(place, named));
    const screens = new Set(meant.map(({ screen }) => screen)).size;
    if (screens === 1) {
      const place = meant.find(({ id, isFree }) => isFree && !given.has(id)) ?? meant[0];
      if (place) given.add(place.id);
      return [{ code, named, screen: place?.id ?? null, problem: null }];
    }
    const problem =
      screens === 0
        ? `No screen is called “${named}”. Choose one.`
        : `${screens} screens are called “${named}”. Write the site before it, or choose one.`;
    return [{ code, named, screen: null, problem }];
  });
  const taken = new Set(read.map(({ screen }) => screen));
  const next = places.flatMap(({ id, isFree }) => (isFree && !taken.has(id) ? [id] : []))[Symbol.iterator]();
  const whole = read.map((line): Line => {
    if (line.problem !== null || line.screen !== null) return line;
    const screen: string | undefined = next.next().value;
    return screen === undefined
      ? { ...line, problem: 'No screen without a player is left. Choose one.' }
      : { ...line, screen };
  });
  return whole.map((line, i) => ({ ...line, problem: line.problem ?? doubled(line, whole.slice(0, i)) }));
}

/** Whether a name means a place: its id or its screen's, its name or its wall's, with or without its site's name before it. */
function isMeant({ id, screen, name, wall, site }: PairingPlace, named: string): boolean {
  const wanted = searchable(named);
  const own = [name.replaceAll(',', ''), wall ?? name].map(searchable);
  return (
    wanted === id || wanted === screen || own.some((one) => wanted === one || wanted === `${searchable(site)} ${one}`)
  );
}

function doubled({ code, screen }: Line, before: readonly Line[]): string | null {
  if (before.some((one) => one.code === code)) return 'This code is in the list twice.';
  return screen !== null && before.some((one) => one.screen === screen) ? 'This screen is in the list twice.' : null;
}
