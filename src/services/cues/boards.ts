import { cueEffect, reachedBy } from '@/core/forecast';
import { objectIn, type Board, type BoardButton, type ButtonColour, type Plan } from '@/core/plan';
import { Refusal } from '@/core/refusal';
import type { StoredFile } from '@/protocol/file-response';
import { ROLE, type Role } from '@/core/roles';
import { publish, rows, transaction, uuidv7 } from '@/database';
import { notFound } from '../errors';
import { newestPlan } from '../editions';
import { thumbnailOf } from '../library';
import { demand, limitAttempts, newToken, placeOf, readInput, record, tokenHash, type Actor } from '../people';
import { draftPlan } from '../plan';
import { press, type ByWhom, type Fired, type Hand } from './fire';
import { cuesOn } from './in-force';
import { linkSchema, pressSchema } from './schemas';

/** Boards of buttons: who may press which, the links that open one, and what each button would do now. */

/** A button with what pressing it would do. */
export interface ShownButton {
  readonly id: string;
  readonly label: string;
  readonly cue: string;
  readonly where: string | null;
  readonly colour: ButtonColour | null;
  readonly picture: string | null;
  /** On how many screens, and for how long at most, in milliseconds; null if nothing would show now. */
  readonly screens: number;
  readonly lastsMs: number | null;
  /** While it is on: until when, on its screens. */
  readonly onUntil: string | null;
}

/** A board, ready to be pressed. */
export interface ShownBoard {
  readonly id: string;
  readonly name: string;
  readonly network: string;
  readonly buttons: readonly ShownButton[];
  /** Milliseconds since 1970, when this was worked out: pages count down by it. */
  readonly now: number;
}

/** A link that opens one board, and nothing else. */
export interface BoardLink {
  readonly id: string;
  readonly board: string;
  /** For whom or where. */
  readonly name: string;
  readonly madeAt: string;
  readonly madeBy: string | null;
  readonly usedAt: string | null;
}

const MOST_LINKS = 200;
/** Tries of links that are none, from one place. */
const TRIES = { most: 30, seconds: 300 };

/** Each board's links, and who alone may press it: ids of people, of others everybody whose role may. */
export interface BoardsAccess {
  readonly links: readonly BoardLink[];
  readonly people: Readonly<Record<string, readonly string[]>>;
}

export async function boardsAccess({ networkId }: Actor): Promise<BoardsAccess> {
  const links = await rows<Omit<BoardLink, 'madeAt' | 'usedAt'> & { made: Date; used: Date | null }>(
    `SELECT l.id, l.board, l.name, l.made_at AS made, p.name AS "madeBy", l.used_at AS used FROM board_links l
     LEFT JOIN people p ON p.id = l.made_by WHERE l.network_id = $1 ORDER BY l.board, lower(l.name), l.id`,
    [networkId],
  );
  const people = await rows<{ board: string; ids: string[] }>(
    `SELECT board, array_agg(person_id) AS ids FROM board_people WHERE network_id = $1 GROUP BY board`,
    [networkId],
  );
  return {
    links: links.map(({ made, used, ...link }) => ({
      ...link,
      ...{ madeAt: made.toISOString(), usedAt: used?.toISOString() ?? null },
    })),
    people: Object.fromEntries(people.map(({ board, ids }) => [board, ids])),
  };
}

/**
 * Makes a link that opens a board without logging in. Its secret is answered this once only. Throws 404 for no board, 409 for too many.
 */
export async function makeBoardLink(actor: Actor, input: unknown): Promise<{ readonly token: string }> {
  demand(actor, 'operate');
  const { board: id, name } = readInput(linkSchema, input);
  const board = objectIn((await draftPlan(actor)).plan, 'board', id);
  if (!board) throw notFound('board');
  await refuseToPress(actor, board);
  const { token, hash } = newToken();
  await transaction(async (within) => {
    const made = await rows(
      `INSERT INTO board_links (id, network_id, board, name, token_hash, made_by)
       SELECT $1, $2, $3, $4, $5, $6 WHERE (SELECT count(*) FROM board_links WHERE network_id = $2) < $7 RETURNING id`,
      [uuidv7(), actor.networkId, id, name, hash, actor.personId, MOST_LINKS],
      within,
    );
    if (made.length === 0)
      throw new Refusal(409, `There are ${MOST_LINKS} links, which is the limit. Delete one that isn’t used.`);
    await record({ ...actor, act: 'board-link-made', about: `${board.name}, ${name}` }, within);
  });
  return { token };
}

/** Ends a link at once: who has it can open nothing with it. Throws 404 for none. */
export async function endBoardLink(actor: Actor, id: string): Promise<void> {
  demand(actor, 'operate');
  await transaction(async (within) => {
    const [ended] = await rows<{ board: string; name: string }>(
      'DELETE FROM board_links WHERE network_id = $1 AND id = $2 RETURNING board, name',
      [actor.networkId, id],
      within,
    );
    if (!ended) throw notFound('link');
    await record({ ...actor, act: 'board-link-ended', about: ended.name }, within);
  });
}

/** Sets who alone may press a board in the interface; an empty list lets everybody whose role allows it. Throws 403, 404 and 422. */
export async function setBoardPeople(actor: Actor, id: string, people: readonly string[]): Promise<void> {
  demand(actor, 'operate');
  const board = objectIn((await draftPlan(actor)).plan, 'board', id);
  if (!board) throw notFound('board');
  await refuseToPress(actor, board);
  await transaction(async (within) => {
    await rows('DELETE FROM board_people WHERE network_id = $1 AND board = $2', [actor.networkId, id], within);
    const wanted = [...new Set(people)];
    const set = await rows<{ name: string; role: Role }>(
      `WITH chosen AS (SELECT id, name, role FROM people WHERE network_id = $1 AND removed_at IS NULL AND id = ANY($3::uuid[])),
         written AS (INSERT INTO board_people (network_id, board, person_id) SELECT $1, $2, id FROM chosen)
       SELECT name, role FROM chosen ORDER BY name`,
      [actor.networkId, id, wanted],
      within,
    );
    if (set.length !== wanted.length)
      throw new Refusal(422, 'One of these people is no longer here. Reload the page, then choose again.');
    const unfit = set.find(({ role }) => !ROLE[role].may.includes('operate'));
    if (unfit)
      throw new Refusal(422, `${unfit.name} can’t fire cues as ${ROLE[unfit.role].name.toLowerCase()}. Choose others.`);
    await record({ ...actor, act: 'board-people-set', about: board.name }, within);
    await publish({ kind: 'cues', network: actor.networkId, screens: [] }, within);
  });
}

/** Throws 403 for a board that is for other people alone. Owners may always. */
async function refuseToPress({ networkId, personId, may }: Actor, { id, name }: Board): Promise<void> {
  if (may.includes('people')) return;
  const only = await rows<{ person: string }>(
    'SELECT person_id AS person FROM board_people WHERE network_id = $1 AND board = $2',
    [networkId, id],
  );
  if (only.length > 0 && !only.some(({ person }) => person === personId))
    throw new Refusal(403, `“${name}” is for other people alone. Ask an owner to add you.`);
}

/** A board with what its buttons would do now. Throws 404 for none. */
export async function board(actor: Actor, id: string, now = Date.now()): Promise<ShownBoard> {
  const found = objectIn((await draftPlan(actor)).plan, 'board', id);
  if (!found) throw notFound('board');
  return shown(actor.networkId, found, now);
}

/** Fires, or ends, what a button of a board does. Throws as firing does, 403 where the board is for others, 404 for no board or button. */
export async function pressButton(
  actor: Actor,
  id: string,
  input: unknown,
  { idempotencyKey }: ByWhom = {},
  now = Date.now(),
): Promise<Fired> {
  demand(actor, 'operate');
  const found = objectIn((await draftPlan(actor)).plan, 'board', id);
  if (!found) throw notFound('board');
  await refuseToPress(actor, found);
  const hand = {
    networkId: actor.networkId,
    key: `person ${actor.personId ?? ''}`,
    said: `${actor.name}, on “${found.name}”`,
    personId: actor.personId,
  };
  return pressOn(found, hand, input, idempotencyKey, now);
}

/** What a link opens: its board, and nothing else. Throws 404 for a link that is none or was ended, 429 after too many of those. */
export async function openBoard(token: string, address: string, now = Date.now()): Promise<ShownBoard> {
  const { networkId, found } = await linked(token, address);
  return shown(networkId, found, now);
}

/** Fires, or ends, what a button of the link's board does. Throws as `openBoard` and firing do. */
export async function pressByLink(
  token: string,
  address: string,
  input: unknown,
  { idempotencyKey }: ByWhom = {},
  now = Date.now(),
): Promise<Fired> {
  const { networkId, found, link, name } = await linked(token, address);
  const hand = { networkId, key: `link ${link}`, said: `${name}, on “${found.name}”`, personId: null };
  return pressOn(found, hand, input, idempotencyKey, now);
}

/** The small picture of a file that is on a button of the link's board. Throws 404 for any other. */
export async function boardPicture(token: string, address: string, media: string): Promise<StoredFile> {
  const { networkId, found } = await linked(token, address);
  const { plan } = await draftPlan({ networkId });
  const isOnIt = found.buttons.some(({ picture }) => picture === media);
  const sha256 = isOnIt ? objectIn(plan, 'media', media)?.sha256 : undefined;
  if (sha256 === undefined) throw notFound('picture');
  return thumbnailOf({ networkId }, sha256);
}

async function linked(token: string, address: string) {
  const [link] = await rows<{ id: string; networkId: string; board: string; name: string }>(
    `SELECT id, network_id AS "networkId", board, name FROM board_links WHERE token_hash = $1`,
    [tokenHash(token)],
  );
  const found = link && objectIn((await draftPlan(link)).plan, 'board', link.board);
  if (!found) {
    // Only misses count: a board that is open asks again and again.
    await limitAttempts(`board:${placeOf(address)}`, TRIES.most, TRIES.seconds);
    throw new Refusal(404, 'This link no longer opens anything. Ask for a new one.');
  }
  // An open board asks every two seconds.
  await rows(
    `UPDATE board_links SET used_at = now() WHERE id = $1 AND (used_at IS NULL OR used_at < now() - interval '1 minute')`,
    [link.id],
  );
  return { networkId: link.networkId, link: link.id, name: link.name, found };
}

async function pressOn(
  found: Board,
  hand: Hand,
  input: unknown,
  idempotencyKey: string | undefined,
  now: number,
): Promise<Fired> {
  const { button: id, end } = readInput(pressSchema, input);
  const button = found.buttons.find((one) => one.id === id);
  if (!button) throw notFound('button');
  return press(hand, { cue: button.cue, where: button.where, end }, idempotencyKey, now);
}

async function shown(networkId: string, { id, name, buttons }: Board, now: number): Promise<ShownBoard> {
  const { plan: draft } = await draftPlan({ networkId });
  const plan = await newestPlan(networkId);
  const on = await cuesOn({ networkId }, now);
  return {
    ...{ id, name, network: draft.network.name, now },
    buttons: buttons.map((button) => ({
      ...namesOf(draft, button),
      ...wouldDo(plan, button, now),
      onUntil: on.find(({ cue, screens }) => cue === button.cue && isOn(plan, button, screens))?.until ?? null,
    })),
  };
}

const namesOf = (draft: Plan, { id = '', label, cue, where, colour, picture }: BoardButton) => ({
  ...{ id, cue, where: where ?? null, colour: colour ?? null, picture: picture ?? null },
  label: label ?? objectIn(draft, 'cue', cue)?.name ?? cue,
});

/** What a button would do is worked out again after this time, or when something is published. */
const EFFECT_MS = 10_000;
type Effect = Pick<ShownButton, 'screens' | 'lastsMs'>;
const effects = new WeakMap<Plan, Map<string, { readonly at: number; readonly effect: Effect }>>();

/** Every open board asks every two seconds, and in a large network the answer takes a while. */
function wouldDo(plan: Plan | null, { cue, where }: BoardButton, now: number): Effect {
  if (!plan || !objectIn(plan, 'cue', cue)) return { screens: 0, lastsMs: null };
  const known = effects.get(plan) ?? new Map<string, { readonly at: number; readonly effect: Effect }>();
  effects.set(plan, known);
  const key = JSON.stringify([cue, where]);
  const before = known.get(key);
  if (before && now - before.at >= 0 && now - before.at < EFFECT_MS) return before.effect;
  const firing = { cue, at: new Date(now).toISOString() };
  const { screens, until } = cueEffect(plan, cue, reachedBy(plan, cue, where), [firing], now);
  const effect = { screens: screens.length, lastsMs: until === null ? null : until - now };
  known.set(key, { at: now, effect });
  return effect;
}

function isOn(plan: Plan | null, { cue, where }: BoardButton, screens: readonly string[]): boolean {
  if (!plan) return false;
  const reached = new Set(reachedBy(plan, cue, where));
  return screens.some((screen) => reached.has(screen));
}
