import { UniqueConstraintError } from 'sequelize';
import * as z from 'zod';
import { nameSchema } from '@/core/plan';
import { Refusal } from '@/core/refusal';
import { rows, uuidv7 } from '@/database';
import { notFound } from '../errors';
import { demand, readInput, type Actor } from '../people';

/** Searches that people have saved in their network: the query of the library's address, under a name. */
export interface SavedSearch {
  readonly id: string;
  readonly name: string;
  /** As in an address: `find=ferry&kind=video`. */
  readonly query: string;
}

const MOST = 100;
const PARTS = ['find', 'kind', 'audible', 'unused', 'ending', 'small', 'archived'];

const searchSchema = z.object({
  name: nameSchema,
  query: z
    .string()
    .max(1000, 'This search is too long to save. Shorten it.')
    .refine((query) => {
      const parts = [...new URLSearchParams(query).keys()];
      return parts.length > 0 && parts.every((part) => PARTS.includes(part));
    }, 'There’s nothing to save yet. Type a search, or narrow the library down.'),
});

/** The network's searches, by their names. */
export async function savedSearches({ networkId }: Actor): Promise<SavedSearch[]> {
  return rows<SavedSearch>(
    'SELECT id, name, query FROM saved_searches WHERE network_id = $1 ORDER BY lower(name), id',
    [networkId],
  );
}

/** Keeps a search. Throws 409 for a name that is taken, or where there are too many, 422 by the fields. */
export async function saveSearch(actor: Actor, input: unknown): Promise<SavedSearch> {
  demand(actor, 'library');
  const { networkId } = actor;
  const { name, query } = readInput(searchSchema, input);
  const made = await rows<SavedSearch>(
    `INSERT INTO saved_searches (id, network_id, name, query) SELECT $1, $2, $3, $4
     WHERE (SELECT count(*) FROM saved_searches WHERE network_id = $2) < $5 RETURNING id, name, query`,
    [uuidv7(), networkId, name, query, MOST],
  ).catch((error: unknown) => {
    if (!(error instanceof UniqueConstraintError)) throw error;
    throw new Refusal(409, `There is already a search “${name}”. Choose another name.`, [
      { path: '/name', message: 'This name is taken. Choose another.' },
    ]);
  });
  if (!made[0]) throw new Refusal(409, `You have ${MOST} saved searches. Delete one first.`);
  return made[0];
}

/** Throws 404 for a search that the actor's network does not have. */
export async function removeSearch(actor: Actor, id: string): Promise<void> {
  demand(actor, 'library');
  const gone = await rows('DELETE FROM saved_searches WHERE network_id = $1 AND id = $2 RETURNING id', [
    actor.networkId,
    id,
  ]);
  if (gone.length === 0) throw notFound('search');
}
