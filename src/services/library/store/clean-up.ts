import { stat } from 'node:fs/promises';
import type { Transaction } from 'sequelize';
import { rows, transaction } from '@/database';
import { logger } from '@/log';
import { UNDO_MS } from '../../plan';
import { absent, removeStaleIncoming, storedNames, storedPath } from './files';
import { checkPairing } from './pairing';
import { emptyTrash, toTrash } from './trash';

/** How long a file may be without a reference, so that what is just being written is never taken away. */
const GRACE_MS = 10 * 60_000;

/** Where files are referred to: each column holds hashes. */
const REFERENCES = [
  ...['media_files', 'media_versions'].flatMap((table) =>
    ['asset_sha256', 'thumbnail_sha256', 'original_sha256'].map((column) => [table, column, 'true'] as const),
  ),
  ['part_files', 'sha256', 'true'],
  ['renditions', 'sha256', 'true'],
  ['uploads', 'sha256', "o.state IN ('waiting', 'working')"],
] as const;

/** What an undo of after `$2` may bring back. */
const UNDOABLE = `SELECT unnest(ARRAY[c.before->>'sha256', c.columns->>'originalSha256', c.columns->>'thumbnailSha256'])
  FROM changes c WHERE c.columns IS NOT NULL AND c.at > $2`;

/** A file that nothing refers to, and no undo of after `$2` can bring back. One column at a time: so PostgreSQL can use an index for each. */
const UNUSED = [
  ...REFERENCES.map(
    ([table, column, when]) => `NOT EXISTS (SELECT 1 FROM ${table} o WHERE o.${column} = f.sha256 AND ${when})`,
  ),
  `NOT EXISTS (SELECT 1 FROM (${UNDOABLE}) AS u(sha256) WHERE u.sha256 = f.sha256)`,
].join(' AND ');

/** Locks files by their hashes until the transaction ends, so that storing and removing a file take turns. Give several in order. */
export async function holdFiles(hashes: readonly string[], within: Transaction): Promise<void> {
  for (const sha256 of hashes) await rows('SELECT pg_advisory_xact_lock(hashtextextended($1, 7131))', [sha256], within);
}

/** Removes a file and its bytes where nothing refers to it. `before` leaves newer ones alone. Whether it was removed. */
async function removeIfUnused(sha256: string, before: Date, undoFrom: Date): Promise<boolean> {
  return transaction(async (within) => {
    await holdFiles([sha256], within);
    const removed = await rows(
      `DELETE FROM files f WHERE f.sha256 = $1 AND f.created_at < $3 AND ${UNUSED} RETURNING 1 AS gone`,
      [sha256, undoFrom, before],
      within,
    );
    if (removed.length > 0) await toTrash(sha256);
    return removed.length > 0;
  });
}

/** Removes a file at once where nothing refers to it: one that proved to be of no use. */
export async function removeUnused(sha256: string): Promise<void> {
  const now = Date.now();
  await removeIfUnused(sha256, new Date(now + GRACE_MS), new Date(now - UNDO_MS));
}

/** A clean-up removes at most this share of all files, or this many if that is more, unless a person allows all. */
const SHARE = 0.05;
const FEW = 50;

export interface CleanedUp {
  readonly files: number;
  readonly incoming: number;
  /** Files that no row in the database knows, and that were left because they are too many to be a mistake of ours. */
  readonly left: number;
}

/**
 * Removes files that no media, program or upload uses and no undo can bring back, and the remains of broken-off uploads. They go
 * to the trash. Nothing is removed while the media folder and the database do not belong together. `now` decides what is old enough; `all`
 * removes more than a small share at once.
 */
export async function cleanUp(now: Date, { all = false } = {}): Promise<CleanedUp> {
  const before = new Date(now.getTime() - GRACE_MS);
  const undoFrom = new Date(before.getTime() - UNDO_MS);
  const pairing = await checkPairing();
  if (pairing.kind === 'apart') {
    logger.error(pairing.why);
    return { files: 0, incoming: 0, left: 0 };
  }
  const incoming = await removeStaleIncoming(before);
  await emptyTrash(now);
  const [listed] = await rows<{ n: number }>('SELECT count(*)::int AS n FROM files');
  const most = all ? Infinity : Math.max(FEW, Math.floor((listed?.n ?? 0) * SHARE));
  const unused = await rows<{ sha256: string }>(
    `SELECT f.sha256 FROM files f WHERE f.created_at < $1 AND ${UNUSED} LIMIT $3`,
    [before, undoFrom, all ? null : most],
  );
  let files = 0;
  for (const { sha256 } of unused) if (await removeIfUnused(sha256, before, undoFrom)) files++;
  const strays = await straysBefore(before);
  if (strays.length > most) {
    const problem = `The media folder holds ${strays.length} files that the database does not know. They were left: run \`lanternpost files clean --all\` to move them to the trash.`;
    logger.error(problem);
    await rows('UPDATE store SET problem = $1', [problem]);
    return { files, incoming, left: strays.length };
  }
  for (const sha256 of strays) if (await removeStray(sha256, before)) files++;
  return { files, incoming, left: 0 };
}

/** Stored files that no row knows and that were stored before an instant. Each folder is asked about at once. */
async function straysBefore(before: Date): Promise<string[]> {
  const found: string[] = [];
  for await (const names of storedNames()) {
    if (names.length === 0) continue;
    const known = await rows<{ sha256: string }>('SELECT sha256 FROM files WHERE sha256 = ANY($1)', [names]);
    const listed = new Set(known.map(({ sha256 }) => sha256));
    for (const name of names) if (!listed.has(name) && (await isStoredBefore(name, before))) found.push(name);
  }
  return found;
}

const isStoredBefore = async (sha256: string, before: Date) =>
  ((await stat(storedPath(sha256)).catch(absent(null)))?.mtime ?? before) < before;

/** Removes bytes that no row knows, unless they were stored again since. */
function removeStray(sha256: string, before: Date): Promise<boolean> {
  return transaction(async (within) => {
    await holdFiles([sha256], within);
    const known = await rows('SELECT 1 FROM files WHERE sha256 = $1', [sha256], within);
    if (known.length > 0 || !(await isStoredBefore(sha256, before))) return false;
    await toTrash(sha256);
    return true;
  });
}
