import type { KnownFiring } from '@/core/cues';
import type { Firing as ProgramFiring } from '@/core/forecast';
import { group } from 'd3-array';
import { rows } from '@/database';
import { KnownByNetwork } from '../known-by-network';

/** What was fired, for players and forecasts. */

/** A firing as it goes to a player. Instants by the server's clock, in milliseconds. */
export interface ToldFiring {
  readonly id: string;
  readonly cue: string;
  readonly at: number;
  readonly end?: true;
  /** A player that hears of it first after this passes over it. */
  readonly late: number;
}

interface Row {
  readonly id: string;
  readonly cue: string;
  readonly at: Date;
  readonly late: Date;
  readonly ends: boolean;
  readonly selector: string | null;
  readonly screens: readonly string[];
}

/** Of firings alike, a later one goes ahead until it ends; only so many before it may show again. */
const ALIKE = 10;
const MOST = 2000;

type Told = readonly { readonly firing: ToldFiring; readonly screens: ReadonlySet<string> }[];
const known = new KnownByNetwork<Told>(openIn, 'cues');

/** The firings that may still matter on a screen, the earliest first. */
export async function firingsFor(
  { networkId, screen }: { readonly networkId: string; readonly screen: { readonly id: string } },
  now = Date.now(),
): Promise<ToldFiring[]> {
  const told = await known.of(networkId);
  return told.flatMap(({ firing, screens }) => (screens.has(screen.id) && firing.at <= now + 1000 ? [firing] : []));
}

async function openIn(networkId: string): Promise<Told> {
  const found = await open(networkId);
  const alike = group(found, ({ cue, selector, ends }) => JSON.stringify([cue, selector, ends]));
  const kept = new Set([...alike.values()].flatMap((list) => list.slice(0, ALIKE)));
  return found
    .filter((row) => kept.has(row))
    .reverse()
    .map(({ id, cue, at, late, ends, screens }) => ({
      firing: { id, cue, at: at.getTime(), late: late.getTime(), ...(ends ? { end: true as const } : {}) },
      screens: new Set(screens),
    }));
}

/** The newest first: what is over by itself is left out. */
const open = (networkId: string): Promise<Row[]> =>
  rows<Row>(
    `SELECT id, cue, at, late_after AS late, ends, selector, screens FROM cue_firings
     WHERE network_id = $1 AND until > now() ORDER BY at DESC, id DESC LIMIT ${MOST}`,
    [networkId],
  );

/** What was fired on a screen until an instant and may matter then, in milliseconds: as a program takes it. */
export async function firingsOn(networkId: string, screen: string, at: number): Promise<ProgramFiring[]> {
  const found = await rows<Pick<Row, 'cue' | 'at' | 'ends'>>(
    `SELECT cue, at, ends FROM cue_firings
     WHERE network_id = $1 AND $2 = ANY (screens) AND until > $3 AND at <= $3 ORDER BY at DESC, id DESC LIMIT ${MOST}`,
    [networkId, screen, new Date(at)],
  );
  return found.map((row) => ({ cue: row.cue, at: row.at.getTime(), ...(row.ends ? { end: true as const } : {}) }));
}

/** What was fired and may matter in `[from, to)`, in milliseconds, as the forecast takes it: the earliest first. */
export async function firingsWithin(networkId: string, from: number, to: number): Promise<KnownFiring[]> {
  const found = await rows<Pick<Row, 'cue' | 'at' | 'ends' | 'selector'> & { by: string | null; local: boolean }>(
    `SELECT cue, at, ends, selector, said AS by, origin LIKE 'key %' AS local FROM cue_firings
     WHERE network_id = $1 AND until > $2 AND at < $3 ORDER BY at, id LIMIT ${MOST}`,
    [networkId, new Date(from), new Date(to)],
  );
  return found.map(({ cue, at, ends, selector, by, local }) => ({
    ...{ cue, at: at.toISOString() },
    ...(selector === null ? {} : { where: selector }),
    ...(ends ? { end: true as const } : {}),
    ...(by === null ? {} : { by }),
    ...(local ? { isLocal: true as const } : {}),
  }));
}
