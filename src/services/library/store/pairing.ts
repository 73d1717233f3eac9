import { readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Transaction } from 'sequelize';
import * as z from 'zod';
import { rows, transaction } from '@/database';
import { absent, mediaFolder, privateFolder, storedNames } from './files';

/**
 * Which media folder belongs to which database. Both hold the same identity, and a mark that is counted up together with every clean-up.
 * So it is noticed when a server is started with another database beside a full media folder, and when only one of the two was restored
 * from a backup. Then nothing is removed until the people who run the server have said which is right.
 */

const stateSchema = z.object({ id: z.uuid(), mark: z.int().min(0) });
type State = z.infer<typeof stateSchema>;

/** Whether the two belong together, or in one sentence why not, and what to do. */
export type Pairing = { readonly kind: 'together' } | { readonly kind: 'apart'; readonly why: string };

const TOGETHER: Pairing = { kind: 'together' };
const apart = (why: string): Pairing => ({ kind: 'apart', why });

const SETTLE =
  'Nothing is cleaned up until you restore the right one, or run `lanternpost files pair` to accept both as they are.';

const statePath = () => join(mediaFolder(), 'store.json');

async function readState(): Promise<State | null> {
  const text = await readFile(statePath(), 'utf8').catch(absent(null));
  return text === null ? null : (stateSchema.safeParse(parsed(text)).data ?? null);
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

async function writeState(state: State): Promise<void> {
  await privateFolder(mediaFolder());
  const next = `${statePath()}.next`;
  await writeFile(next, JSON.stringify(state), { mode: 0o600 });
  await rename(next, statePath());
}

/** What the database says. `paired` is false until it has met a media folder. */
interface Known extends State {
  readonly paired: boolean;
}

async function known(within: Transaction): Promise<Known> {
  // One at a time, in whichever process: the mark is written in two places.
  const [row] = await rows<{ id: string; mark: string; paired: boolean }>(
    'SELECT id, mark, paired FROM store FOR UPDATE',
    [],
    within,
  );
  if (!row) throw new Error('the table "store" has lost its row');
  return { ...row, mark: Number(row.mark) };
}

/** How many files the folder and the database have, and how many of them in common. */
async function counted(within: Transaction): Promise<{ stored: number; listed: number; common: number }> {
  let stored = 0;
  let common = 0;
  for await (const names of storedNames()) {
    stored += names.length;
    const [found] = await rows<{ n: number }>(
      'SELECT count(*)::int AS n FROM files WHERE sha256 = ANY($1)',
      [names],
      within,
    );
    common += found?.n ?? 0;
  }
  const [listed] = await rows<{ n: number }>('SELECT count(*)::int AS n FROM files', [], within);
  return { stored, listed: listed?.n ?? 0, common };
}

/**
 * A folder and a database from before they knew of each other belong together if they have nearly all of each in common: a twentieth may
 * differ, or a few.
 */
const OTHER_SHARE = 0.05;
const FEW = 20;
const isNearly = (common: number, all: number) => common > 0 && all - common <= Math.max(FEW, all * OTHER_SHARE);

async function judge(file: State | null, db: Known, within: Transaction): Promise<Pairing> {
  if (file?.id === db.id) {
    // A process may have died after one of the two was written.
    if (Math.abs(file.mark - db.mark) <= 1) return TOGETHER;
    return apart(
      file.mark > db.mark
        ? `The database is older than the media folder: it looks as if only the database was restored from a backup. ${SETTLE}`
        : `The media folder is older than the database: it looks as if only the files were restored from a backup. ${SETTLE}`,
    );
  }
  const { stored, listed, common } = await counted(within);
  if (stored === 0)
    return listed === 0
      ? TOGETHER
      : apart(`The media folder is empty, but the database lists ${listed} files: restore the media folder. ${SETTLE}`);
  if (!file && !db.paired && isNearly(common, stored) && isNearly(common, listed)) return TOGETHER;
  return apart(
    `The media folder belongs to another database: it holds ${stored} files, and this database knows ${common} of them. Check DATABASE_URL and LANTERNPOST_DATA. ${SETTLE}`,
  );
}

/** Writes the identity and the next mark in both places: in neither where one of them can't be written. */
async function mark(file: State | null, db: Known, within: Transaction): Promise<void> {
  const next = Math.max(file?.id === db.id ? file.mark : 0, db.mark) + 1;
  await rows('UPDATE store SET mark = $1, paired = true, problem = NULL', [next], within);
  await writeState({ id: db.id, mark: next });
}

/**
 * Looks whether the media folder and the database belong together, and if they do, counts their mark up. The answer is also kept in the
 * database, where the interface reads it.
 */
export async function checkPairing(): Promise<Pairing> {
  return transaction(async (within) => {
    const [db, file] = [await known(within), await readState()];
    const found = await judge(file, db, within);
    if (found.kind === 'together') await mark(file, db, within);
    else await rows('UPDATE store SET problem = $1', [found.why], within);
    return found;
  });
}

/** Accepts the media folder and the database as they are now, whatever was different: for whoever runs the server. */
export async function acceptPairing(): Promise<void> {
  await transaction(async (within) => mark(await readState(), await known(within), within));
}
