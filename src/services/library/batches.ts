import equal from 'fast-deep-equal';
import type { Transaction } from 'sequelize';
import * as z from 'zod';
import { currentDocument, patchOf, tagsSchema, type Media } from '@/core/plan';
import { whenSchema, type When } from '@/core/when';
import { publish, rows, uuidv7, type UploadRow } from '@/database';
import { demand, readInput, type Actor } from '../people';
import { editWithin, inTurn, loadObjects, takeTurn } from '../plan';

/** Files that are sent together: what is said of all of them holds for those that are in already and for those that are still to come. */

const batchSchema = z.object({ tags: tagsSchema, available: whenSchema.optional() });

/** What is said of all files of a batch. */
export type BatchInput = z.input<typeof batchSchema>;

/** What is said of a batch, as it was read. */
type Said = z.output<typeof batchSchema>;

/**
 * Gives all files of a batch these tags, in place of those that the batch had before, and when they are available: also those of which
 * not one is begun yet. What a file has from elsewhere stays. Throws 422 for tags or times that can't be.
 */
export async function describeBatch(actor: Actor, batch: string, input: BatchInput): Promise<void> {
  demand(actor, 'library');
  const said = readInput(batchSchema, input);
  const { networkId } = actor;
  await inTurn(networkId, async (within) => {
    // A file that the worker is just making is either in before, or made of what is said here.
    await takeTurn(networkId, within);
    const before = await batchSaid(networkId, batch, within);
    await rows(
      `INSERT INTO batches (network_id, id, tags, available) VALUES ($1, $2, $3, $4)
       ON CONFLICT (network_id, id) DO UPDATE SET tags = excluded.tags, available = excluded.available, said_at = now()`,
      [networkId, batch, JSON.stringify(said.tags), said.available ? JSON.stringify(said.available) : null],
      within,
    );
    const files = await rows<{ slug: string }>(`SELECT slug ${OF_A_BATCH}`, [networkId, batch], within);
    await describe(
      actor,
      files.map(({ slug }) => slug),
      before,
      said,
      within,
    );
    await publish({ kind: 'uploads', network: networkId }, within);
  });
}

/** The media files of the network `$1` that came with the batch `$2`. */
const OF_A_BATCH = `FROM plan_objects WHERE network_id = $1 AND kind = 'media'
  AND id IN (SELECT media_id FROM uploads WHERE network_id = $1 AND batch = $2 AND state <> 'failed')`;

async function describe(
  actor: Actor,
  ids: readonly string[],
  before: BatchSaid,
  said: Said,
  within: Transaction,
): Promise<void> {
  const keys = ids.map((id) => ({ kind: 'media' as const, id }));
  const media = [...(await loadObjects(actor.networkId, keys, within)).values()] as Media[];
  const patches = media.flatMap((file) => patchOf('media', file.id, file, withSaid(file, before, said)) ?? []);
  if (patches.length > 0) await editWithin(actor, patches, within, { id: uuidv7() });
}

const NOTHING: BatchSaid = { tags: [], available: null };

/** Tells a media file that the library had already, by its row, what is said of the batch with which it came again. */
export async function tellFile(actor: Actor, row: string, batch: string | null, within: Transaction): Promise<void> {
  const { tags, available } = await batchSaid(actor.networkId, batch, within);
  if (tags.length === 0 && !available) return;
  const files = await rows<{ slug: string }>('SELECT slug FROM plan_objects WHERE id = $1', [row], within);
  const said = { tags: [...tags], ...(available ? { available } : {}) };
  await describe(
    actor,
    files.map(({ slug }) => slug),
    NOTHING,
    said,
    within,
  );
}

/** The same for an upload that has become a file of the library. */
export async function tellKnown(actor: Actor, { batch, mediaId }: UploadRow): Promise<void> {
  if (batch === null || mediaId === null) return;
  await inTurn(actor.networkId, async (within) => {
    await takeTurn(actor.networkId, within);
    await tellFile(actor, mediaId, batch, within);
  });
}

/** A file with what is said of its batch; what was said of the batch before goes, its own stays. */
function withSaid(file: Media, before: BatchSaid, said: Said): Media {
  const { tags = [], when, ...others } = file;
  const own = tags.filter((tag) => !before.tags.includes(tag));
  const all = [...new Set([...own, ...said.tags])];
  const available = said.available ?? (equal(when, before.available) ? undefined : when);
  return { ...others, ...(all.length > 0 ? { tags: all } : {}), ...(available ? { when: available } : {}) };
}

/** What is said of a batch now. */
export interface BatchSaid {
  readonly tags: readonly string[];
  readonly available: When | null;
}

export async function batchSaid(networkId: string, batch: string | null, within?: Transaction): Promise<BatchSaid> {
  const [said] = await rows<BatchSaid>(
    'SELECT tags, available FROM batches WHERE network_id = $1 AND id = $2',
    [networkId, batch],
    within,
  );
  return said ?? NOTHING;
}

/** How many files of a batch are here whole, and not in the library yet. */
export async function batchPreparing({ networkId }: Actor, batch: string): Promise<number> {
  const [found] = await rows<{ count: number }>(
    `SELECT count(*)::int AS count FROM uploads WHERE network_id = $1 AND batch = $2 AND state IN ('waiting', 'working')`,
    [networkId, batch],
  );
  return found?.count ?? 0;
}

/** A batch's media files that are in, in the order of their names. */
export async function batchMedia({ networkId }: Actor, batch: string): Promise<Media[]> {
  const found = await rows<{ document: object; format: number }>(
    `SELECT document, format ${OF_A_BATCH} ORDER BY name, slug`,
    [networkId, batch],
  );
  return found.map(({ document, format }) => currentDocument('media', document, format) as Media);
}
