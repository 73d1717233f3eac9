import type { StoredFile } from '@/protocol/file-response';
import type { Report, Target } from '@/protocol/schemas';
import { LRUCache } from 'lru-cache';
import { pinText } from '@/core/pin';
import { sha256Hex } from '@/core/sha256';
import { partAt, type Wall } from '@/core/walls';
import { rows, subscribe } from '@/database';
import { logger } from '@/log';
import { givenAt, givenIn, noteShown, programOf, type NetworkGiven } from '../editions';
import { tokenHash } from '../people';
import { ArrivalNotes } from './arrivals';

/** A paired player, as its token tells. */
export interface Player {
  readonly id: string;
  readonly networkId: string;
  readonly screen: { readonly id: string; readonly name: string; readonly width: number; readonly height: number };
  /** Which display of the screen it is, and the wall that it is of. */
  readonly part: number;
  readonly wall?: Wall | null;
  /** The PIN of its own page; null if that stays closed. */
  readonly pin?: string | null;
  /** Whether no picture may be taken of its screen. */
  readonly isPrivate?: boolean;
  /** How often one is taken, in minutes; null: when a person asks. */
  readonly glimpseMinutes?: number | null;
}

/** Longer than from one beat of a player to the next. News of a change ends it before. */
const KNOWN_FOR_MS = 30_000;
/** What an edition holds stays granted while the edition is kept; not for ever, since editions are cleared away. */
const GRANTED_FOR_MS = 10 * 60_000;

/** News that changes neither who a player is nor what it is given. */
const NOT_OF_TARGETS: ReadonlySet<string> = new Set([
  'beats',
  'uploads',
  'session',
  'commands',
  'cues',
  'outcomes',
  'hurry',
  'glimpses',
]);

/** What was read of a network holds until any process changes something of that network: others are not asked again for it. */
class Changes {
  private count = 0;
  private all = 0;
  private readonly last = new Map<string, number>();
  private watching = false;

  /** How many changes were heard of: what is read from now on is as new as this. */
  now(): number {
    if (!this.watching) {
      this.watching = true;
      subscribe((message) => {
        if (NOT_OF_TARGETS.has(message.kind)) return;
        this.count++;
        if (message.kind === 'resync') this.all = this.count;
        else this.last.set(message.network, this.count);
      });
    }
    return this.count;
  }

  /** Whether what was read then still stands. */
  standsSince(then: number, network: string): boolean {
    return then >= this.all && then >= (this.last.get(network) ?? 0);
  }
}

const changes = new Changes();
const known = new LRUCache<string, { readonly player: Player; readonly at: number }>({
  max: 50_000,
  ttl: KNOWN_FOR_MS,
});

/** The player of a token, or null where it is unknown or revoked. Remembered for half a minute, and never past a change. */
export async function playerOf(token: string): Promise<Player | null> {
  const at = changes.now();
  const hash = tokenHash(token);
  const cached = known.get(hash);
  if (cached && changes.standsSince(cached.at, cached.player.networkId)) return cached.player;
  const [player] = await rows<Player>(
    `SELECT p.id, p.network_id AS "networkId", p.part, s.document->'wall' AS wall, n.player_pin AS pin,
       jsonb_build_object('id', s.slug, 'name', s.name, 'width', s.document->'width', 'height', s.document->'height') AS screen,
       COALESCE((s.document->>'private')::boolean, false) AS "isPrivate", (s.document->>'glimpseMinutes')::int AS "glimpseMinutes"
     FROM players p JOIN plan_objects s ON s.id = p.screen_id JOIN networks n ON n.id = p.network_id WHERE p.token_hash = $1`,
    [hash],
  );
  if (player) known.set(hash, { player, at });
  else known.delete(hash);
  return player ?? null;
}

/** What each network's editions give to its screens, and when it was asked for. */
const targets = new LRUCache<string, { readonly at: number; readonly read: Promise<NetworkGiven | undefined> }>({
  max: 1000,
  ttl: KNOWN_FOR_MS,
});

/** What a player is to play now and from which instants on something else, and the server's clock. */
export async function targetOf(player: Player): Promise<Target> {
  const { networkId, screen } = player;
  const at = changes.now();
  let found = targets.get(networkId);
  if (!found || !changes.standsSince(found.at, networkId)) {
    found = { at, read: givenIn([networkId]).then((given) => given.get(networkId)) };
    targets.set(networkId, found);
    found.read.catch(() => targets.delete(networkId));
  }
  const network = await found.read;
  const now = Date.now();
  const given = network?.of(screen.id) ?? [];
  const on = givenAt(given, now);
  const program = on ? programOf(on) : null;
  const coming: NonNullable<Target['coming']> = [];
  let before = program;
  for (const one of given) {
    const next = programOf(one);
    if (one.from > now && one.from < Infinity && next !== before)
      coming.push({ at: one.from, program: (before = next), source: one.edition.id });
  }
  const edition = network?.newest?.number ?? null;
  const part = player.wall ? partAt(player.wall, player.part) : null;
  return {
    screen: {
      ...screen,
      ...(part ? { part } : {}),
      ...(player.pin ? { pin: sha256Hex(pinText(screen.id, player.pin)) } : {}),
    },
    ...{ edition, program, source: on?.edition.id, coming, serverTime: now },
  };
}

/** A program that an edition gives to the player's own screen, as canonical text; null for any other. */
export async function programText(player: Player, hash: string): Promise<string | null> {
  const { program, coming = [] } = await targetOf(player);
  // What it was just told to play needs no question, and is asked for by all that are alike at once.
  const isTold = hash === program || coming.some((one) => one.program === hash);
  return isTold || (await isGiven(player, hash)) ? ((await programTexts.fetch(hash)) ?? null) : null;
}

async function isGiven({ networkId, screen }: Player, hash: string): Promise<boolean> {
  const found = await rows(
    `SELECT 1 FROM edition_screens s JOIN editions e ON e.id = s.edition_id
     WHERE $1 IN (s.hash, s.delivered) AND s.screen = $3 AND e.network_id = $2 LIMIT 1`,
    [hash, networkId, screen.id],
  );
  return found.length > 0;
}

/** Texts of programs by their hashes, which never change; as many characters of them as are kept at most. */
const programTexts = new LRUCache<string, string>({
  maxSize: 32_000_000,
  sizeCalculation: (text) => text.length,
  fetchMethod: async (hash) =>
    (await rows<{ document: string }>('SELECT document FROM program_documents WHERE hash = $1', [hash]))[0]?.document,
});

const grantedFiles = new LRUCache<string, StoredFile>({ max: 50_000, ttl: GRANTED_FOR_MS });

/** A file that a program of the player's own screen needs; null for any other. */
export async function playerFile(player: Player, sha256: string): Promise<StoredFile | null> {
  const key = `${player.networkId}/${player.id}/${sha256}`;
  const granted = grantedFiles.get(key);
  if (granted) return granted;
  const [row] = await rows<{ type: string; bytes: string; damaged: boolean }>(
    `SELECT f.type, f.bytes, f.damaged_at IS NOT NULL AS damaged FROM files f WHERE f.sha256 = $1 AND EXISTS (
       SELECT 1 FROM program_files p JOIN edition_screens s ON p.hash IN (s.hash, s.delivered) JOIN editions e ON e.id = s.edition_id
       WHERE p.sha256 = f.sha256 AND s.screen = $3 AND e.network_id = $2)`,
    [sha256, player.networkId, player.screen.id],
  );
  if (!row) return null;
  const file = { sha256, ...row, bytes: Number(row.bytes) };
  // A person may repair it at any moment.
  if (!file.damaged) grantedFiles.set(key, file);
  return file;
}

const FLUSH_EVERY_MS = 1000;
const waiting = new Map<string, { network: string; report: Report; seen: number }>();
let timer: NodeJS.Timeout | null = null;

/** Takes a heartbeat. They are gathered and written together about once a second: a database write each would be too slow. */
export function heartbeat(player: Player, report: Report): void {
  waiting.set(player.id, { network: player.networkId, report, seen: Date.now() });
  timer ??= setTimeout(() => {
    timer = null;
    flushHeartbeats().catch((error: unknown) =>
      logger.warn({ error }, 'heartbeats could not be written: the next are on their way'),
    );
  }, FLUSH_EVERY_MS);
}

/**
 * Writes what heartbeats are waiting, all together. Where PostgreSQL does not take one of them, halves are written on their own, down to
 * the single one that fails. That one is dropped and logged, so that the others are saved. New ones keep coming.
 */
export async function flushHeartbeats(): Promise<void> {
  const beats = [...waiting].map(([id, beat]) => ({ id, ...beat }));
  waiting.clear();
  // Written before the feed announces them: listeners then ask for arrivals.
  await arrivals.note(
    beats.flatMap(({ id, network, report: { program }, seen }) =>
      program === null ? [] : [{ player: id, network, program, seen }],
    ),
  );
  await writeBeats(beats);
  await noteTakeovers(beats);
}

const arrivals = new ArrivalNotes();

/** Players that showed no takeover in their last report, as far as this process knows. */
const quiet = new Set<string>();

/** Which takeovers players show, as they tell it: those that show one, and those that may have until now. */
async function noteTakeovers(beats: readonly Beat[]): Promise<void> {
  const told = beats.flatMap(({ id, report: { playing }, seen }) => {
    const booking = playing?.source === 'takeover' ? playing.id : null;
    const isNews = booking !== null || !quiet.has(id);
    if (booking === null) quiet.add(id);
    else quiet.delete(id);
    return isNews ? [{ player: id, booking, since: playing?.since ?? null, seen }] : [];
  });
  if (told.length > 0) await noteShown(told);
}

type Beat = { readonly id: string; readonly network: string; readonly report: Report; readonly seen: number };

/** What PostgreSQL says of a value that it does not take (SQLSTATE class 22), whoever sends it. */
const isOfData = (error: unknown) =>
  /^22/.test(String((error as { original?: { code?: unknown } } | null)?.original?.code));

async function writeBeats(beats: readonly Beat[]): Promise<void> {
  if (beats.length === 0) return;
  try {
    await rows(
      `WITH beats AS (SELECT * FROM jsonb_to_recordset($1::jsonb) AS b(id uuid, report jsonb, seen timestamptz)),
         written AS (UPDATE players p SET last_seen = b.seen, report = b.report,
           doubled_at = CASE WHEN b.report->>'life' = p.life_before THEN b.seen ELSE p.doubled_at END,
           life_before = CASE WHEN b.report->>'life' IS DISTINCT FROM p.life THEN p.life ELSE p.life_before END,
           life = b.report->>'life'
           FROM beats b WHERE p.id = b.id RETURNING p.id)
       SELECT pg_notify('lanternpost', jsonb_build_object('kind', 'beats', 'network', n)::text)
       FROM unnest($2::text[]) AS n WHERE EXISTS (SELECT 1 FROM written)`,
      [
        JSON.stringify(beats.map(({ id, report, seen }) => ({ id, report, seen: new Date(seen).toISOString() }))),
        [...new Set(beats.map((beat) => beat.network))],
      ],
    );
  } catch (error) {
    if (!isOfData(error)) throw error;
    const [first] = beats;
    if (beats.length === 1 && first)
      return logger.warn({ player: first.id, network: first.network }, 'a heartbeat could not be written');
    const half = Math.ceil(beats.length / 2);
    await writeBeats(beats.slice(0, half));
    await writeBeats(beats.slice(half));
  }
}
