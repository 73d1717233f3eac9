import type { Transaction } from 'sequelize';
import type { Screen } from '@/core/plan';
import { Refusal } from '@/core/refusal';
import { hasPart, placesOf, readPlace } from '@/core/walls';
import { ObjectRow, PairingRow, PlayerRow } from '@/database';
import { notFound } from '../errors';

/** A place for a player as a person names it: a screen, or a display of a wall. `part` is null for a wall without one of its displays. */
export interface NamedPlace {
  readonly screen: ObjectRow;
  readonly part: number | null;
}

/** The place that a name means. Throws 404 for none. */
export async function namedPlace(networkId: string, place: string, within?: Transaction): Promise<NamedPlace> {
  const { screen: id, part } = readPlace(place);
  const screen = await ObjectRow.findOne({
    where: { networkId, kind: 'screen', slug: id },
    transaction: within ?? null,
  });
  if (!screen) throw notFound('screen');
  const { wall } = screen.document as Screen;
  if (part !== null && !hasPart({ wall }, part)) throw notFound('display of this wall');
  return { screen, part: wall ? part : 1 };
}

/** The display of a place: of a wall that is named alone, its first one without a player. Throws 422 if all have one. */
export async function readyPart({ screen, part }: NamedPlace, within: Transaction): Promise<number> {
  if (part !== null) return part;
  const { wall } = screen.document as Screen;
  const where = { screenId: screen.id };
  const players = await PlayerRow.findAll({ where, transaction: within });
  // Given to a player that hasn't collected its token yet: taken as well.
  const coming = await PairingRow.findAll({ where, transaction: within });
  const taken = new Set([...players, ...coming].map((one) => one.part));
  const free = placesOf({ id: screen.slug, wall }).find((one) => !taken.has(one.part));
  if (!free)
    throw new Refusal(
      422,
      `All displays of this wall have a player. Say which one to replace, like “${screen.slug}/1”.`,
    );
  return free.part;
}
