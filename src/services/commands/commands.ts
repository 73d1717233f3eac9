import { ascending, group, sort } from 'd3-array';
import { commandWords, numberAtSite, type CommandKind } from '@/core/commands';
import { Refusal, orThrow } from '@/core/refusal';
import { parseSelector, screensMatching } from '@/core/selector';
import { publish, rows, transaction, uuidv7 } from '@/database';
import type { Transaction } from 'sequelize';
import { notFound } from '../errors';
import { demand, readInput, type Actor } from '../people';
import { draftPlan } from '../plan';
import { commandSchema } from './schemas';

/** Commands as people send them and look at them; `pending.ts` is the players' side. */

/** How a command went on one screen, or on one display of a wall. `late`: it expired before the player had done it. */
export interface CommandOnScreen {
  readonly screen: string;
  /** The number of the display; 1 where the screen isn't a wall. */
  readonly part: number;
  readonly dueAt: string;
  readonly expiresAt: string;
  readonly receivedAt: string | null;
  readonly endedAt: string | null;
  readonly state: 'waiting' | 'received' | 'done' | 'failed' | 'cancelled' | 'late';
  /** Why it failed. */
  readonly said: string | null;
}

export interface SentCommand {
  readonly id: string;
  readonly kind: CommandKind;
  readonly percent?: number;
  readonly degrees?: number;
  readonly input?: string;
  readonly sentAt: string;
  /** Who sent it; null if that person is gone, or it was the command line. */
  readonly by: string | null;
  readonly byKey: boolean;
  readonly screens: readonly CommandOnScreen[];
}

/** A command that was sent, and how many of the screens have no player that could do it. */
export interface Sent {
  readonly command: SentCommand;
  readonly withoutPlayer: number;
}

/** By whom something is done besides the actor. */
interface ByWhom {
  readonly byKey?: boolean | undefined;
  readonly idempotencyKey?: string | undefined;
}

/** A notification of the database holds 8000 bytes: so many ids have room in one. */
const AT_ONCE = 150;

/**
 * Sends a command to the players of screens. Under the same idempotency key it is sent once, and answered the same. Throws 422 for a
 * command that makes no sense, and if none of the screens has a player.
 */
export async function sendCommand(
  actor: Actor,
  order: unknown,
  { byKey = false, idempotencyKey }: ByWhom = {},
  now = Date.now(),
): Promise<Sent> {
  demand(actor, 'operate');
  const { kind, percent, degrees, input, screens: ids, where, keptMs, spreadMs } = readInput(commandSchema, order);
  const { networkId, personId } = actor;
  const { plan } = await draftPlan(actor);
  const wanted =
    where === undefined ? null : new Set(screensMatching(plan, orThrow(parseSelector(where))).map(({ id }) => id));
  const named = new Set(ids);
  const chosen = plan.screens.filter(({ id }) => wanted?.has(id) ?? named.has(id));
  const unknown = [...named].find((id) => !plan.screens.some((one) => one.id === id));
  if (unknown !== undefined) throw new Refusal(422, `There is no screen “${unknown}”. Check its id.`);
  if (chosen.length === 0) throw new Refusal(422, `No screen matches “${where}”. Choose other screens.`);
  const siteOf = new Map(plan.sites.map((site) => [site.id, site.name]));
  return transaction(async (within) => {
    const players = await rows<{ screen: string; part: number; player: string }>(
      `SELECT s.slug AS screen, p.part, p.id AS player FROM players p JOIN plan_objects s ON s.id = p.screen_id
       WHERE p.network_id = $1 AND s.slug = ANY($2)`,
      [networkId, chosen.map(({ id }) => id)],
      within,
    );
    const playersOf = group(players, ({ screen }) => screen);
    const able = chosen.filter(({ id }) => playersOf.has(id));
    if (able.length === 0)
      throw new Refusal(
        422,
        chosen.length === 1
          ? 'This screen has no player. Pair one first.'
          : `None of these ${chosen.length} screens has a player. Pair them first.`,
      );
    const id = uuidv7();
    const made = await rows(
      `INSERT INTO commands (id, network_id, kind, percent, degrees, input, sent_at, sent_by, by_key, idempotency_key)
       VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10) ON CONFLICT (network_id, idempotency_key) DO NOTHING RETURNING id`,
      [
        ...[id, networkId, kind, percent ?? null, degrees ?? null, input ?? null],
        ...[new Date(now), personId, byKey, idempotencyKey ?? null],
      ],
      within,
    );
    const withoutPlayer = chosen.length - able.length;
    if (made.length === 0) {
      const again = await sentUnder(networkId, idempotencyKey ?? '', within);
      if (again.kind !== kind || again.percent !== percent || again.degrees !== degrees || again.input !== input)
        throw new Refusal(422, `This idempotency key has sent “${commandWords(again)}”. Use another key.`);
      return { command: again, withoutPlayer };
    }
    const apart = able.length > 1 ? spreadMs / (able.length - 1) : 0;
    const orders = able.flatMap((screen, i) => {
      const due = new Date(now + Math.round(i * apart)).toISOString();
      // Only what shows them needs the numbers.
      const number = kind === 'identify' ? numberAtSite(plan.screens, screen) : null;
      const one = { screen: screen.id, site: siteOf.get(screen.site) ?? null, number, due };
      // The displays of a wall are done together.
      return (playersOf.get(screen.id) ?? []).map(({ part }) => ({ ...one, part }));
    });
    await rows(
      `INSERT INTO command_screens (command_id, network_id, screen, part, site, number, due_at, expires_at)
       SELECT $1, $2, t.screen, t.part, t.site, t.number, t.due, t.due + $3::float8 * interval '1 millisecond'
       FROM jsonb_to_recordset($4::jsonb) AS t(screen text, part smallint, site text, number integer, due timestamptz)`,
      [id, networkId, keptMs, JSON.stringify(orders)],
      within,
    );
    await wake(
      networkId,
      players.map(({ player }) => player),
      within,
    );
    const [command] = await sentBy('c.id = $2', [networkId, id], within, now);
    if (!command) throw notFound('command');
    return { command, withoutPlayer };
  });
}

/** Tells players that their commands are to be asked for again. */
async function wake(networkId: string, players: readonly string[], within: Transaction): Promise<void> {
  for (let at = 0; at < players.length; at += AT_ONCE)
    await publish({ kind: 'commands', network: networkId, players: players.slice(at, at + AT_ONCE) }, within);
  await publish({ kind: 'outcomes', network: networkId }, within);
}

/** Cancels a command on all screens that have not done it yet. Throws 404 for none, and 409 where nothing is left to cancel. */
export async function cancelCommand(actor: Actor, id: string, now = Date.now()): Promise<SentCommand> {
  demand(actor, 'operate');
  const { networkId } = actor;
  return transaction(async (within) => {
    const ended = await rows<{ player: string | null }>(
      `UPDATE command_screens s SET outcome = 'cancelled', ended_at = $3
       FROM command_screens t LEFT JOIN plan_objects o ON o.network_id = t.network_id AND o.kind = 'screen' AND o.slug = t.screen
         LEFT JOIN players p ON p.screen_id = o.id AND p.part = t.part
       WHERE t.command_id = s.command_id AND t.screen = s.screen AND t.part = s.part AND s.command_id = $2 AND s.network_id = $1
         AND s.outcome IS NULL AND s.expires_at > $3
       RETURNING p.id AS player`,
      [networkId, id, new Date(now)],
      within,
    );
    const [command] = await sentBy('c.id = $2', [networkId, id], within, now);
    if (!command) throw notFound('command');
    if (ended.length === 0)
      throw new Refusal(409, 'Nothing is left to cancel: every screen has done it, or it was too late.');
    await wake(
      networkId,
      ended.flatMap(({ player }) => player ?? []),
      within,
    );
    return command;
  });
}

/** A command, with how it went on each screen by now. Throws 404 for none. */
export async function commandOf({ networkId }: Actor, id: string): Promise<SentCommand> {
  const [command] = await sentBy('c.id = $2', [networkId, id]);
  if (!command) throw notFound('command');
  return command;
}

const FORGOTTEN_AFTER_DAYS = 90;

/** Deletes commands that were sent long ago. Returns how many. */
export async function clearCommands(now: Date): Promise<number> {
  const gone = await rows(`DELETE FROM commands WHERE sent_at < $1::timestamptz - $2 * interval '1 day' RETURNING id`, [
    ...[now, FORGOTTEN_AFTER_DAYS],
  ]);
  return gone.length;
}

/** How many screens stand alike with a command. */
export interface ScreensAlike {
  readonly state: CommandOnScreen['state'];
  readonly screens: number;
  /** When the first of them is to do it, and when the last of them ended. */
  readonly dueAt: string;
  readonly endedAt: string | null;
}

/** A command as lists show it: how many screens stand how, and why it failed on the first few that failed. */
export interface CommandSummary extends Omit<SentCommand, 'screens'> {
  readonly states: readonly ScreensAlike[];
  readonly failed: readonly { readonly screen: string; readonly said: string | null }[];
}

/** SQL: how a command stands on a screen `s` at an instant. */
const stateAt = (now: string) => `CASE WHEN s.outcome IS NOT NULL THEN s.outcome WHEN s.expires_at <= ${now} THEN 'late'
  WHEN s.received_at IS NULL THEN 'waiting' ELSE 'received' END`;

const MOST = 50;
const MOST_FAILED = 5;

/** The last commands to some of these screens, or of the whole network: the newest first, at most 50. */
export async function recentCommands(
  { networkId }: Actor,
  screens: readonly string[] | null = null,
  now = Date.now(),
): Promise<CommandSummary[]> {
  type Alike = Head & {
    readonly dueAt: Date;
    readonly endedAt: Date | null;
    readonly state: CommandOnScreen['state'];
    readonly count: number;
    readonly failed: CommandSummary['failed'] | null;
  };
  const found = await rows<Alike>(
    `WITH last AS (
       SELECT k.* FROM commands k WHERE k.network_id = $1 AND ($2::text[] IS NULL OR EXISTS (
         SELECT 1 FROM command_screens t WHERE t.command_id = k.id AND t.screen = ANY($2)))
       ORDER BY k.sent_at DESC, k.id DESC LIMIT ${MOST}),
     displays AS (
       SELECT s.*, ${stateAt('$3')} AS state, array_position(ARRAY['failed', 'late', 'waiting', 'received', 'cancelled', 'done'], ${stateAt('$3')}) AS rank
       FROM command_screens s JOIN last ON last.id = s.command_id WHERE $2::text[] IS NULL OR s.screen = ANY($2)),
     -- A wall stands as that of its displays that needs a person most.
     stand AS (
       SELECT command_id, screen, min(due_at) AS due_at, max(ended_at) AS ended_at,
         (array_agg(said ORDER BY rank, part))[1] AS said, (array_agg(state ORDER BY rank))[1] AS state
       FROM displays GROUP BY command_id, screen)
     SELECT c.id, c.kind, c.percent, c.degrees, c.input, c.sent_at AS "sentAt", p.name AS by, c.by_key AS "byKey", s.state,
       count(*)::int AS count, min(s.due_at) AS "dueAt", max(s.ended_at) AS "endedAt",
       (jsonb_agg(jsonb_build_object('screen', s.screen, 'said', s.said)) FILTER (WHERE s.state = 'failed')) AS failed
     FROM last c JOIN stand s ON s.command_id = c.id LEFT JOIN people p ON p.id = c.sent_by
     GROUP BY c.id, c.kind, c.percent, c.degrees, c.input, c.sent_at, p.name, c.by_key, s.state
     ORDER BY c.sent_at DESC, c.id DESC, count DESC`,
    [networkId, screens, new Date(now)],
  );
  return [...group(found, ({ id }) => id).values()].flatMap((list) => {
    const [first] = list;
    if (!first) return [];
    return [
      {
        ...headOf(first),
        states: list.map(({ state, count, dueAt, endedAt }) => ({
          ...{ state, screens: count, dueAt: dueAt.toISOString(), endedAt: endedAt?.toISOString() ?? null },
        })),
        failed: list.flatMap(({ failed }) => failed ?? []).slice(0, MOST_FAILED),
      },
    ];
  });
}

type Head = Pick<Row, 'id' | 'kind' | 'percent' | 'degrees' | 'input' | 'sentAt' | 'by' | 'byKey'>;

const headOf = ({ id, kind, percent, degrees, input, sentAt, by, byKey }: Head): Omit<SentCommand, 'screens'> => ({
  ...{ id, kind, sentAt: sentAt.toISOString(), by, byKey },
  ...(percent === null ? {} : { percent }),
  ...(degrees === null ? {} : { degrees }),
  ...(input === null ? {} : { input }),
});

async function sentUnder(networkId: string, key: string, within: Transaction): Promise<SentCommand> {
  const [command] = await sentBy('c.idempotency_key = $2', [networkId, key], within);
  if (!command) throw notFound('command');
  return command;
}

interface Row {
  readonly id: string;
  readonly kind: CommandKind;
  readonly percent: number | null;
  readonly degrees: number | null;
  readonly input: string | null;
  readonly sentAt: Date;
  readonly by: string | null;
  readonly byKey: boolean;
  readonly screen: string;
  readonly part: number;
  readonly dueAt: Date;
  readonly expiresAt: Date;
  readonly receivedAt: Date | null;
  readonly endedAt: Date | null;
  readonly state: CommandOnScreen['state'];
  readonly said: string | null;
}

async function sentBy(
  condition: string,
  values: unknown[],
  within?: Transaction,
  now = Date.now(),
): Promise<SentCommand[]> {
  const found = await rows<Row>(
    `SELECT c.id, c.kind, c.percent, c.degrees, c.input, c.sent_at AS "sentAt", p.name AS by, c.by_key AS "byKey", s.screen, s.part,
       s.due_at AS "dueAt", s.expires_at AS "expiresAt", s.received_at AS "receivedAt", s.ended_at AS "endedAt", s.said,
       ${stateAt('$3')} AS state
     FROM commands c JOIN command_screens s ON s.command_id = c.id LEFT JOIN people p ON p.id = c.sent_by
     WHERE c.network_id = $1 AND ${condition} ORDER BY c.sent_at DESC, c.id DESC`,
    [...values, new Date(now)],
    within,
  );
  return [...group(found, ({ id }) => id).values()].flatMap((list) => {
    const [first] = list;
    if (!first) return [];
    return [
      {
        ...headOf(first),
        screens: sort(
          list,
          (a, b) => ascending(a.dueAt, b.dueAt) || ascending(a.screen, b.screen) || ascending(a.part, b.part),
        ).map(onScreen),
      },
    ];
  });
}

function onScreen({ screen, part, dueAt, expiresAt, receivedAt, endedAt, state, said }: Row): CommandOnScreen {
  return {
    ...{ screen, part, dueAt: dueAt.toISOString(), expiresAt: expiresAt.toISOString() },
    ...{ receivedAt: receivedAt?.toISOString() ?? null, endedAt: endedAt?.toISOString() ?? null },
    ...{ state, said },
  };
}
