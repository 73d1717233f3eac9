import { group } from 'd3-array';
import { LRUCache } from 'lru-cache';
import type { Command, Outcome } from '@/core/commands';
import { publish, rows, subscribe } from '@/database';

/** The players' side of commands: what each screen has to do, and how it went. */

/** A screen that a player is paired with. */
interface Place {
  readonly networkId: string;
  readonly screen: { readonly id: string };
}

type Open = ReadonlyMap<string, readonly Command[]>;

/** What was read of a network is known until a command is sent or cancelled there; a message may be lost, so not for longer than this. */
const KNOWN_FOR_MS = 10_000;
const known = new LRUCache<string, Promise<Open>>({ max: 1000, ttl: KNOWN_FOR_MS });
/** Commands that ended since `known` was read, as far as this process was told. */
const ended = new LRUCache<string, true>({ max: 50_000, ttl: 2 * KNOWN_FOR_MS });
let watching = false;

/** The commands that a screen's player has yet to do, now or later. Leaves out those that have expired or have an outcome. */
export async function pendingCommands({ networkId, screen }: Place, now = Date.now()): Promise<Command[]> {
  if (!watching) {
    watching = true;
    subscribe((message) => {
      if (message.kind === 'commands') known.delete(message.network);
      if (message.kind === 'resync') known.clear();
    });
  }
  let read = known.get(networkId);
  if (!read) {
    read = openIn(networkId);
    known.set(networkId, read);
    read.catch(() => known.delete(networkId));
  }
  const open = (await read).get(screen.id) ?? [];
  return open.filter(({ id, expires }) => expires > now && !ended.has(`${id} ${screen.id} ${networkId}`));
}

async function openIn(networkId: string): Promise<Open> {
  const found = await rows<{
    id: string;
    screen: string;
    kind: string;
    percent: number | null;
    degrees: number | null;
    site: string | null;
    number: number | null;
    due: Date;
    expires: Date;
  }>(
    `SELECT c.id, s.screen, c.kind, c.percent, c.degrees, s.site, s.number, s.due_at AS due, s.expires_at AS expires
     FROM command_screens s JOIN commands c ON c.id = s.command_id
     WHERE s.network_id = $1 AND s.outcome IS NULL AND s.expires_at > now() ORDER BY c.sent_at, c.id`,
    [networkId],
  );
  const commands = found.map(({ id, screen, kind, percent, degrees, site, number, due, expires }) => {
    const amounts = { ...(percent === null ? {} : { percent }), ...(degrees === null ? {} : { degrees }) };
    const place = kind === 'identify' ? { site: site ?? undefined, number: number ?? undefined } : {};
    return { screen, command: { id, kind, ...amounts, ...place, at: due.getTime(), expires: expires.getTime() } };
  });
  return new Map(
    [...group(commands, ({ screen }) => screen)].map(([screen, list]) => [screen, list.map(({ command }) => command)]),
  );
}

/** An outcome that waits to be written, with the screen that told it. */
interface Told extends Outcome {
  readonly network: string;
  readonly screen: string;
}

const WRITE_AFTER_MS = 50;
let waiting = new Map<string, Told>();
let writing: Promise<void> | null = null;

/**
 * Stores the outcomes that a player reports for its own screen. The first outcome of a command stays, but a command that the player did
 * just before it was cancelled counts as done. Commands of other screens are ignored.
 * Outcomes are collected for a moment and written together, since a thousand players may report at once. Resolves when they are written.
 */
export function noteOutcomes({ networkId, screen }: Place, outcomes: readonly Outcome[]): Promise<void> {
  for (const outcome of outcomes) {
    const key = `${outcome.id} ${screen.id} ${networkId}`;
    const before = waiting.get(key);
    // The first that ends it counts.
    if (!before || before.state === 'received') waiting.set(key, { ...outcome, network: networkId, screen: screen.id });
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
  const noted = await rows<{ id: string; screen: string; network: string }>(
    `UPDATE command_screens s SET received_at = coalesce(s.received_at, now()),
       outcome = CASE WHEN t.state = 'received' THEN NULL ELSE t.state END,
       ended_at = CASE WHEN t.state = 'received' THEN NULL ELSE now() END, said = t.said
     FROM jsonb_to_recordset($1::jsonb) AS t(id uuid, network uuid, screen text, state text, said text)
     WHERE s.command_id = t.id AND s.network_id = t.network AND s.screen = t.screen
       AND (s.outcome IS NULL OR s.outcome = 'cancelled' AND t.state <> 'received')
     RETURNING s.command_id AS id, s.screen, s.network_id AS network`,
    [JSON.stringify(told)],
  );
  const own = new Set(noted.map(({ id, screen, network }) => `${id} ${screen} ${network}`));
  for (const { id, screen, network, state } of told)
    if (state !== 'received' && own.has(`${id} ${screen} ${network}`)) ended.set(`${id} ${screen} ${network}`, true);
  for (const network of new Set(noted.map((one) => one.network))) await publish({ kind: 'outcomes', network });
}
