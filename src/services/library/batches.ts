import equal from 'fast-deep-equal';
import type { Transaction } from 'sequelize';
import { z } from 'zod';
import { currentDocument, patchOf, tagsSchema, whenSchema, type Media, type When } from '@/core';
import { publish, rows, uuidv7 } from '@/database';
import { readInput, type Actor } from '../people';
import { editWithin, inTurn, loadObjects, takeTurn } from '../plan';

/** Files that are sent together: what is said of all of them holds for those that are in already and for those that are still to come. */

const batchSchema = z.object({ tags: tagsSchema, available: whenSchema.optional() });

/** What is said of all files of a batch. */
export type BatchInput = z.input<typeof batchSchema>;

/** What is said of a batch, as it was read. */
type Said = z.output<typeof batchSchema>;

/** A file of a batch: the media file that it became, and what was said of it so far. */
interface Told extends BatchSaid {
  readonly media: string | null;
}

/**
 * Gives all files of a batch these tags, in place of those that the batch had before, and when they are available. What a file has from
 * elsewhere stays. Returns how many files it is about. Throws 422 for tags or times that can't be.
 */
export async function describeBatch(actor: Actor, batch: string, input: BatchInput): Promise<number> {
  const said = readInput(batchSchema, input);
  const { networkId } = actor;
  return inTurn(networkId, async (within) => {
    // A file that the worker is just making is either in before, or made of what is said here.
    await takeTurn(networkId, within);
    await holdBatch(batch, within);
    const told = await rows<Told>(
      `SELECT o.slug AS media, u.tags, u.available FROM uploads u LEFT JOIN plan_objects o ON o.id = u.media_id
       WHERE u.network_id = $1 AND u.batch = $2 AND u.state <> 'failed' FOR UPDATE OF u`,
      [networkId, batch],
      within,
    );
    await rows(
      `UPDATE uploads SET tags = $3, available = $4 WHERE network_id = $1 AND batch = $2 AND state <> 'failed'`,
      [networkId, batch, JSON.stringify(said.tags), said.available ? JSON.stringify(said.available) : null],
      within,
    );
    await describe(actor, told, said, within);
    await publish({ kind: 'uploads', network: networkId }, within);
    return told.length;
  });
}

async function describe(actor: Actor, told: readonly Told[], said: Said, within: Transaction): Promise<void> {
  const before = new Map(told.flatMap((one) => (one.media ? [[one.media, one] as const] : [])));
  const keys = [...before.keys()].map((id) => ({ kind: 'media' as const, id }));
  const media = [...(await loadObjects(actor.networkId, keys, within)).values()] as Media[];
  const patches = media.flatMap(
    (file) => patchOf('media', file.id, file, withSaid(file, before.get(file.id), said)) ?? [],
  );
  if (patches.length > 0) await editWithin(actor, patches, within, { id: uuidv7() });
}

/** A file with what is said of its batch; what was said of the batch before goes, its own stays. */
function withSaid(file: Media, before: BatchSaid | undefined, said: Said): Media {
  const { tags = [], when, ...others } = file;
  const own = tags.filter((tag) => !before?.tags.includes(tag));
  const all = [...new Set([...own, ...said.tags])];
  const available = said.available ?? (equal(when, before?.available) ? undefined : when);
  return { ...others, ...(all.length > 0 ? { tags: all } : {}), ...(available ? { when: available } : {}) };
}

/** What is said of a batch now. */
export interface BatchSaid {
  readonly tags: readonly string[];
  readonly available: When | null;
}

export async function batchSaid({ networkId }: Actor, batch: string, within?: Transaction): Promise<BatchSaid> {
  const [said] = await rows<BatchSaid>(
    'SELECT tags, available FROM uploads WHERE network_id = $1 AND batch = $2 ORDER BY created_at DESC LIMIT 1',
    [networkId, batch],
    within,
  );
  return said ?? { tags: [], available: null };
}

/** Who begins a file of a batch and who says something of the batch take turns until their transactions end. */
export async function holdBatch(batch: string, within: Transaction): Promise<void> {
  await rows('SELECT pg_advisory_xact_lock(hashtextextended($1, 7132))', [batch], within);
}

/** A batch's media files that are in, in the order of their names. */
export async function batchMedia({ networkId }: Actor, batch: string): Promise<Media[]> {
  const found = await rows<{ document: object; format: number }>(
    `SELECT document, format FROM plan_objects WHERE network_id = $1 AND kind = 'media'
       AND id IN (SELECT media_id FROM uploads WHERE network_id = $1 AND batch = $2) ORDER BY name, slug`,
    [networkId, batch],
  );
  return found.map(({ document, format }) => currentDocument('media', document, format) as Media);
}
