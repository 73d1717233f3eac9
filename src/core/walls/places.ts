import type { Screen } from '../plan';
import { partAt, partName, partsOf } from './walls';

/** Places for players: a screen has one, a wall has one for each of its displays. */

export interface Place {
  /** "hall", or "hall/2" for the second display of a wall. */
  readonly id: string;
  readonly screen: string;
  readonly part: number;
  /** "row 1, column 2"; null for a screen that isn't a wall. */
  readonly name: string | null;
}

/** The places of a screen, in the order of its displays. */
export const placesOf = ({ id, wall }: Pick<Screen, 'id' | 'wall'>): Place[] =>
  wall
    ? partsOf(wall).map((part) => ({
        ...{ id: placeOf(id, part.number), screen: id, part: part.number, name: partName(part) },
      }))
    : [{ id, screen: id, part: 1, name: null }];

/** The id of a place. */
export const placeOf = (screen: string, part: number): string => `${screen}/${part}`;

/** A place's id taken apart; `part` is null where only the screen is named. */
export function readPlace(place: string): { readonly screen: string; readonly part: number | null } {
  const [, screen = place, part] = /^(.*)\/(\d{1,3})$/.exec(place) ?? [];
  return { screen, part: part === undefined ? null : Number(part) };
}

/** Whether a screen has a display of this number. */
export const hasPart = ({ wall }: Pick<Screen, 'wall'>, part: number): boolean =>
  wall ? partAt(wall, part) !== null : part === 1;
