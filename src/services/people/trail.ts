import type { Transaction } from 'sequelize';
import { publish, rows } from '@/database';
import type { TrailAct } from './acts';
import type { Actor } from './actor';

/** One line of the trail. */
export interface TrailLine {
  readonly id: number;
  readonly at: string;
  /** Who did it; null for the command line. */
  readonly by: string | null;
  readonly act: TrailAct;
  /** Whom or what it was done to, where that is another than who did it. */
  readonly about: string | null;
  readonly address: string | null;
}

const LINES = 200;
const KEPT_DAYS = 400;

interface Done {
  readonly networkId: string;
  readonly personId: string | null;
  readonly act: TrailAct;
  readonly about?: string;
  readonly address?: string | null;
}

/** Writes what is done, in the transaction that does it, and has pages ask for the trail again. */
export async function record(done: Done, within?: Transaction): Promise<void> {
  await recordQuietly(done, within);
  await publish({ kind: 'people', network: done.networkId }, within);
}

/** The same without telling pages: for what is done so often, or so urgently, that nothing else may be asked again for it. */
export async function recordQuietly(
  { networkId, personId, act, about, address }: Done,
  within?: Transaction,
): Promise<void> {
  await rows(
    'INSERT INTO audit_trail (network_id, person_id, act, about, address) VALUES ($1, $2, $3, $4, $5)',
    [networkId, personId, act, about ?? null, address ?? null],
    within,
  );
}

/** The last lines of the actor's network, the newest first. For owners only. */
export async function trail({ networkId, may }: Actor): Promise<TrailLine[]> {
  if (!may.includes('people')) return [];
  const found = await rows<Omit<TrailLine, 'at'> & { at: Date }>(
    `SELECT t.id::int, t.at, p.name AS by, t.act, t.about, t.address FROM audit_trail t
     LEFT JOIN people p ON p.id = t.person_id WHERE t.network_id = $1 ORDER BY t.id DESC LIMIT ${LINES}`,
    [networkId],
  );
  return found.map((line) => ({ ...line, at: line.at.toISOString() }));
}

/** Forgets lines that are older than a year and some. */
export async function clearTrail(): Promise<void> {
  await rows(`DELETE FROM audit_trail WHERE at < now() - interval '${KEPT_DAYS} days'`);
}
