import type { Sample, Since, State } from '@/core/health';
import { DAY } from '@/core/instant';
import { rows } from '@/database';
import type { Report } from '@/protocol/schemas';
import { notFound } from '../errors';
import type { Actor } from '../people';

/** What a screen's player reported last. */
export interface PlayerFacts {
  readonly lastSeen: string | null;
  readonly pairedAt: string | null;
  readonly software: string | null;
  readonly can: readonly string[];
  readonly kinds: Report['kinds'] | null;
  readonly codecs: Report['codecs'] | null;
  readonly hardware: NonNullable<Report['hardware']>;
  readonly storage: Report['storage'];
  readonly clockOffsetMs: number | null;
  readonly bytesPerSecond: number | null;
  readonly errors: Report['errors'];
}

/** How a screen was over the last day. */
export interface ScreenHealth {
  /** The instants at which its state changed, the last one before the day among them. */
  readonly states: readonly Since[];
  readonly samples: readonly Sample[];
  /** Since when its troubles stand, by their kinds (`troubleKind`); those of the last minute may be missing. */
  readonly troubles: Readonly<Record<string, number>>;
  /** When a photo of its place was added; null if it has none. */
  readonly photo: string | null;
  /** Null without a player. */
  readonly player: PlayerFacts | null;
}

/** How a screen of the actor's network was over the last day, and what its player told last. Throws 404 for none. */
export async function screenHealth({ networkId }: Actor, screen: string, now = Date.now()): Promise<ScreenHealth> {
  const from = new Date(now - DAY);
  const [known] = await rows<{
    photo: Date | null;
    player: string | null;
    lastSeen: Date | null;
    pairedAt: Date | null;
    report: Report | null;
  }>(
    `SELECT f.added_at AS photo, p.id AS player, p.last_seen AS "lastSeen", p.paired_at AS "pairedAt", p.report
     FROM plan_objects o LEFT JOIN players p ON p.screen_id = o.id
       LEFT JOIN screen_photos f ON f.network_id = o.network_id AND f.screen = o.slug
     WHERE o.network_id = $1 AND o.kind = 'screen' AND o.slug = $2 ORDER BY p.part LIMIT 1`,
    [networkId, screen],
  );
  if (!known) throw notFound('screen');
  const [troubles, states, hours] = await Promise.all([
    rows<{ kind: string; since: Date }>(
      'SELECT kind, since FROM screen_troubles WHERE network_id = $1 AND screen = $2',
      [...[networkId, screen]],
    ),
    rows<{ at: Date; state: State }>(
      `SELECT at, state FROM screen_states WHERE network_id = $1 AND screen = $2 AND at >= COALESCE(
         (SELECT max(at) FROM screen_states WHERE network_id = $1 AND screen = $2 AND at <= $3), '-infinity') ORDER BY at`,
      [networkId, screen, from],
    ),
    rows<{ samples: readonly Sample[] }>(
      `SELECT samples FROM screen_health WHERE network_id = $1 AND screen = $2 AND hour > $3::timestamptz - interval '1 hour'
       ORDER BY hour`,
      [networkId, screen, from],
    ),
  ]);
  return {
    states: states.map(({ at, state }) => ({ at: at.getTime(), state })),
    samples: hours.flatMap(({ samples }) => samples).filter(({ at }) => at >= from.getTime()),
    troubles: Object.fromEntries(troubles.map(({ kind, since }) => [kind, since.getTime()])),
    photo: known.photo?.toISOString() ?? null,
    player: known.player === null ? null : factsOf(known),
  };
}

function factsOf({
  lastSeen,
  pairedAt,
  report,
}: {
  lastSeen: Date | null;
  pairedAt: Date | null;
  report: Report | null;
}): PlayerFacts {
  return {
    lastSeen: lastSeen?.toISOString() ?? null,
    pairedAt: pairedAt?.toISOString() ?? null,
    software: report?.software ?? null,
    can: report?.can ?? [],
    kinds: report?.kinds ?? null,
    codecs: report?.codecs ?? null,
    hardware: report?.hardware ?? {},
    storage: report?.storage ?? null,
    clockOffsetMs: report?.clockOffsetMs ?? null,
    bytesPerSecond: report?.bytesPerSecond ?? null,
    errors: report?.errors ?? [],
  };
}
