import { rows } from '@/database';
import type { Report } from '@/protocol/schemas';
import type { Actor } from '../people';
import { publishedPrograms } from '../editions';

export type ScreenState = 'lit' | 'behind' | 'dark' | 'resting' | 'unpaired';

/** How a screen is, as far as its player tells. */
export interface ScreenStatus {
  readonly id: string;
  readonly state: ScreenState;
  /** When it was last heard from; null for never. */
  readonly lastSeen: string | null;
  /** Plain sentences for what is wrong. */
  readonly troubles: readonly string[];
  readonly playing: Report['playing'];
  readonly download: Report['download'];
  readonly edition: number | null;
  readonly clockOffsetMs: number | null;
}

export const HEARD_WITHIN_MS = 45_000;
const CLOCK_TOLERANCE_MS = 30_000;

/** The status of every screen of the actor's network, by screen id. */
export async function screenStatuses(actor: Actor, now = Date.now()): Promise<ScreenStatus[]> {
  const published = await publishedPrograms(actor.networkId);
  const found = await rows<{ id: string; player: string | null; lastSeen: Date | null; report: Report | null }>(
    `SELECT s.slug AS id, p.id AS player, p.last_seen AS "lastSeen", p.report FROM plan_objects s LEFT JOIN players p ON p.screen_id = s.id
     WHERE s.network_id = $1 AND s.kind = 'screen' ORDER BY s.slug`,
    [actor.networkId],
  );
  return found.map(({ id, player, lastSeen, report }) => {
    const target = published.get(id) ?? null;
    const state = stateOf({ paired: player !== null, lastSeen, report, target, now });
    return {
      id,
      state,
      lastSeen: lastSeen?.toISOString() ?? null,
      troubles: state === 'unpaired' ? [] : troublesOf(report, target, now),
      playing: report?.playing ?? null,
      download: state === 'behind' ? (report?.download ?? null) : null,
      edition: report?.edition ?? null,
      clockOffsetMs: report?.clockOffsetMs ?? null,
    };
  });
}

/** A screen's state (design of the player, "States that an operator sees"). */
export function stateOf(known: {
  paired: boolean;
  lastSeen: Date | null;
  report: Report | null;
  target: string | null;
  now: number;
}): ScreenState {
  const { paired, lastSeen, report, target, now } = known;
  if (!paired) return 'unpaired';
  if (!lastSeen || now - lastSeen.getTime() > HEARD_WITHIN_MS) return 'dark';
  if (!report || target === null || report.program !== target) return 'behind';
  return report.state === 'resting' ? 'resting' : 'lit';
}

function troublesOf(report: Report | null, target: string | null, now: number): string[] {
  const troubles: string[] = [];
  if (target === null) troubles.push('Not in the newest edition yet: publish the docket.');
  if (!report) return troubles;
  const { clockOffsetMs, download, errors, storage } = report;
  if (Math.abs(clockOffsetMs) > CLOCK_TOLERANCE_MS)
    troubles.push(
      `Clock ${spoken(Math.abs(clockOffsetMs))} ${clockOffsetMs > 0 ? 'slow' : 'fast'}; it plays by the server's.`,
    );
  if (storage && download && storage.usedBytes + download.totalBytes - download.doneBytes > storage.limitBytes) {
    const short = storage.usedBytes + download.totalBytes - download.doneBytes - storage.limitBytes;
    troubles.push(`Storage full: ${Math.ceil(short / 1e6)} MB short.`);
  }
  const last = errors.at(-1);
  if (last && now - last.at < 10 * 60_000) troubles.push(last.message);
  return troubles;
}

function spoken(ms: number): string {
  return ms < 120_000 ? `${Math.round(ms / 1000)} s` : `${Math.round(ms / 60_000)} min`;
}
