import { group } from 'd3-array';
import { LRUCache } from 'lru-cache';
import type { Command, Outcome } from '@/core/commands';
import { publish, rows } from '@/database';
import { KNOWN_FOR_MS, KnownByNetwork } from '../known-by-network';

/** The players' side of commands: what each screen has to do, and how it went. */

/** Where a player is: a screen, and which of its displays. */
interface Place {
  readonly networkId: string;
  readonly screen: { readonly id: string };
  readonly part: number;
}

const keyOf = (place: { readonly network: string; readonly screen: string; readonly part: number }) =>
  `${place.screen} ${place.part} ${place.network}`;

type Open = ReadonlyMap<string, readonly Command[]>;

/** The commands that are open in each network. */
const known = new KnownByNetwork(openIn, 'commands');
/** Commands that ended since `known` was read, as far as this process knows. */
const ended = new LRUCache<string, true>({ max: 50_000, ttl: 2 * KNOWN_FOR_MS });

/** The commands that a screen's player has yet to do, now or later. Leaves out those that have expired or have an outcome. */
export async function pendingCommands({ networkId, screen, part }: Place, now = Date.now()): Promise<Command[]> {
  const place = keyOf({ network: networkId, screen: screen.id, part });
  const open = (await known.of(networkId)).get(place) ?? [];
  return open.filter(({ id, expires }) => expires > now && !ended.has(`${id} ${place}`));
}

async function openIn(networkId: string): Promise<Open> {
  const found = await rows<{
    id: string;
    screen: string;
    part: number;
    kind: string;
    percent: number | null;
    degrees: number | null;
    input: string | null;
    site: string | null;
    number: number | null;
    due: Date;
    expires: Date;
  }>(
    `SELECT c.id, s.screen, s.part, c.kind, c.percent, c.degrees, c.input, s.site, s.number, s.due_at AS due, s.expires_at AS expires
     FROM command_screens s JOIN commands c ON c.id = s.command_id
     WHERE s.network_id = $1 AND s.outcome IS NULL AND s.expires_at > now() ORDER BY c.sent_at, c.id`,
    [networkId],
  );
  const commands = found.map(({ id, screen, part, kind, percent, degrees, input, site, number, due, expires }) => {
    const amounts = {
      ...(percent === null ? {} : { percent }),
      ...(degrees === null ? {} : { degrees }),
      ...(input === null ? {} : { input }),
    };
    const place = kind === 'identify' ? { site: site ?? undefined, number: number ?? undefined } : {};
    return {
      place: keyOf({ network: networkId, screen, part }),
      command: { id, kind, ...amounts, ...place, at: due.getTime(), expires: expires.getTime() },
    };
  });
  return new Map(
    [...group(commands, ({ place }) => place)].map(([place, list]) => [place, list.map(({ command }) => command)]),
  );
}

/** An outcome that waits to be written, and of which player it is. */
interface Told extends Outcome {
  readonly network: string;
  readonly screen: string;
  readonly part: number;
}

const WRITE_AFTER_MS = 50;
let waiting = new Map<string, Told>();
let writing: Promise<void> | null = null;

/**
 * Stores the outcomes that a player reports for its own screen. The first outcome of a command stays, but a command that the player did
 * just before it was cancelled counts as done. Commands of other screens are ignored.
 * Outcomes are collected for a moment and written together, since a thousand players may report at once. Resolves when they are written.
 */
export function noteOutcomes({ networkId, screen, part }: Place, outcomes: readonly Outcome[]): Promise<void> {
  for (const outcome of outcomes) {
    const told = { ...outcome, network: networkId, screen: screen.id, part };
    const key = `${outcome.id} ${keyOf(told)}`;
    const before = waiting.get(key);
    // The first that ends it counts.
    if (!before || before.state === 'received') waiting.set(key, told);
  }
  writing ??= new Promise((later) => setTimeout(later, WRITE_AFTER_MS)).then(() => {
    const told = [...waiting.values()];
    waiting = new Map();
    writing = null;
    return write(told);
  });
  return writing;
}

async function write(told: readonly Told[]): Promise<void> {
  const noted = await rows<{ id: string; screen: string; part: number; network: string }>(
    `UPDATE command_screens s SET received_at = coalesce(s.received_at, now()),
       outcome = CASE WHEN t.state = 'received' THEN NULL ELSE t.state END,
       ended_at = CASE WHEN t.state = 'received' THEN NULL ELSE now() END, said = t.said
     FROM jsonb_to_recordset($1::jsonb) AS t(id uuid, network uuid, screen text, part smallint, state text, said text)
     WHERE s.command_id = t.id AND s.network_id = t.network AND s.screen = t.screen AND s.part = t.part
       AND (s.outcome IS NULL OR s.outcome = 'cancelled' AND t.state <> 'received')
     RETURNING s.command_id AS id, s.screen, s.part, s.network_id AS network`,
    [JSON.stringify(told)],
  );
  const own = new Set(noted.map((one) => `${one.id} ${keyOf(one)}`));
  for (const one of told) {
    const key = `${one.id} ${keyOf(one)}`;
    if (one.state !== 'received' && own.has(key)) ended.set(key, true);
  }
  for (const network of new Set(noted.map((one) => one.network))) await publish({ kind: 'outcomes', network });
}
