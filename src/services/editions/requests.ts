import type { Transaction } from 'sequelize';
import * as z from 'zod';
import { keyText, patchesBetween, sharing, type ObjectKey, type Plan } from '@/core/plan';
import { Refusal } from '@/core/refusal';
import { publish, rows, transaction, uuidv7 } from '@/database';
import { notFound } from '../errors';
import { demand, readInput, record, type Actor } from '../people';
import { draftPlan } from '../plan';
import { topEdition } from './planned-plans';

/**
 * Requests to publish, by people who may change the plan and not publish it. One is answered by the publication that holds all that it asked for, or
 * is sent back with a word.
 */

/** A request, as everybody in the network sees it. */
export interface PublishRequest {
  readonly id: string;
  readonly person: string;
  /** Whether the actor asked. */
  readonly yours: boolean;
  readonly askedAt: string;
  readonly note: string;
  readonly chosen: readonly ObjectKey[];
  /** Null while it waits. */
  readonly answer: Answer | null;
}

/** The answer, with when and who gave it. `by` is null if that person is no longer in the network. */
export type Answer = { readonly at: string; readonly by: string | null } & (
  | { readonly kind: 'sent-back'; readonly word: string }
  /** `number` is null while the edition is planned; `plannedFor` is null if it was published at once. Both are null once it is cleared away. */
  | { readonly kind: 'published'; readonly number: number | null; readonly plannedFor: string | null }
);

const MOST_NOTE = 500;
/** How many days an answer stays visible. */
const ANSWERED_DAYS = 14;

const noteSchema = z.string().trim().max(MOST_NOTE, `A note has at most ${MOST_NOTE} characters. Shorten it.`);
const wordSchema = noteSchema.min(1, 'Say why, so that they know what to change.');

interface Row extends Omit<PublishRequest, 'askedAt' | 'answer'> {
  readonly askedAt: Date;
  readonly answeredAt: Date | null;
  readonly by: string | null;
  readonly word: string | null;
  readonly number: number | null;
  readonly plannedFor: Date | null;
}

/** The requests that wait, and what was answered lately, the newest first. */
export async function requests({ networkId, personId }: Actor): Promise<PublishRequest[]> {
  const found = await rows<Row>(
    `SELECT r.id, p.name AS person, r.person_id IS NOT DISTINCT FROM $2 AS yours, r.asked_at AS "askedAt", r.note, r.chosen,
       r.answered_at AS "answeredAt", b.name AS by, r.answer AS word, e.number, e.planned_for AS "plannedFor"
     FROM requests r JOIN people p ON p.id = r.person_id LEFT JOIN people b ON b.id = r.answered_by
       LEFT JOIN editions e ON e.id = r.edition_id
     WHERE r.network_id = $1 AND (r.answered_at IS NULL OR r.answered_at > now() - interval '${ANSWERED_DAYS} days')
     ORDER BY r.asked_at DESC, r.id DESC LIMIT 100`,
    [networkId, personId],
  );
  return found.map(({ askedAt, answeredAt, by, word, number, plannedFor, ...one }) => ({
    ...one,
    askedAt: askedAt.toISOString(),
    answer: answeredAt && {
      ...{ at: answeredAt.toISOString(), by },
      ...(word === null
        ? { kind: 'published', number, plannedFor: plannedFor?.toISOString() ?? null }
        : { kind: 'sent-back', word }),
    },
  }));
}

/**
 * Asks for a publication of all that waits, or of a choice of it. A person's request that waits is replaced. Throws 403 for whoever may not change
 * the plan, 409 where nothing of it waits, 422 for a note that is too long.
 */
export async function askToPublish(
  actor: Actor,
  { note, chosen }: { readonly note: string; readonly chosen?: readonly ObjectKey[] | undefined },
): Promise<{ id: string }> {
  demand(actor, 'plan');
  const words = readInput(noteSchema, note);
  const { networkId, personId } = actor;
  if (personId === null) throw new Refusal(409, 'The command line has the right to publish, so it needn’t ask.');
  const waits = new Set(await waitingKeys(actor));
  const wanted = chosen?.map(({ kind, id }) => ({ kind, id })) ?? [...waits].map(keyOf);
  const asked = wanted.filter((key) => waits.has(keyText(key)));
  if (asked.length === 0)
    throw new Refusal(409, 'These changes are all published already, so there’s nothing to ask for.');
  const id = uuidv7();
  await transaction(async (within) => {
    await rows('DELETE FROM requests WHERE person_id = $1 AND answered_at IS NULL', [personId], within);
    await rows(
      'INSERT INTO requests (id, network_id, person_id, note, chosen) VALUES ($1, $2, $3, $4, $5)',
      [id, networkId, personId, words, JSON.stringify(asked)],
      within,
    );
    await record({ ...actor, act: 'asked-to-publish' }, within);
    await publish({ kind: 'requests', network: networkId }, within);
  });
  return { id };
}

/** What differs between the draft and what is out, or planned last, as key texts. */
async function waitingKeys(actor: Actor): Promise<string[]> {
  const { plan } = await draftPlan(actor);
  const top = await topEdition(actor.networkId);
  return differing(top?.plan ?? null, plan);
}

const keyOf = (text: string): ObjectKey => {
  const [kind, ...rest] = text.split(' ');
  return { kind, id: rest.join(' ') } as ObjectKey;
};

function differing(from: Plan | null, to: Plan): string[] {
  const base = from ?? { ...to, calendars: [], media: [], playlists: [], sites: [], screens: [], bookings: [] };
  return patchesBetween(base, sharing(base, to)).map(({ kind, id = '' }) => keyText({ kind, id }));
}

/** Sends a request back with a word. Throws 404 if it no longer waits, 422 without a word. */
export async function sendBack(actor: Actor, id: string, word: string): Promise<void> {
  demand(actor, 'publish');
  const said = readInput(wordSchema, word);
  await transaction(async (within) => {
    const [sent] = await rows<{ person: string }>(
      `UPDATE requests r SET answered_at = now(), answered_by = $3, answer = $4 FROM people p
       WHERE p.id = r.person_id AND r.network_id = $1 AND r.id = $2 AND r.answered_at IS NULL RETURNING p.name AS person`,
      [actor.networkId, id, actor.personId, said],
      within,
    );
    if (!sent) throw gone();
    await record({ ...actor, act: 'sent-back', about: sent.person }, within);
    await publish({ kind: 'requests', network: actor.networkId }, within);
  });
}

/** Takes one's own request away: one that waits, or an answer that was read. Throws 404. */
export async function withdrawRequest(actor: Actor, id: string): Promise<void> {
  await transaction(async (within) => {
    const taken = await rows(
      'DELETE FROM requests WHERE network_id = $1 AND id = $2 AND person_id = $3 RETURNING id',
      [actor.networkId, id, actor.personId],
      within,
    );
    if (taken.length === 0) throw gone();
    await publish({ kind: 'requests', network: actor.networkId }, within);
  });
}

const gone = () => notFound('open request');

/** Marks requests as answered by an edition once all they asked for is out or planned. In its transaction; `plan` is the last one out or planned. */
export async function answerRequests(
  { networkId, personId }: Actor,
  { edition, plan, draft }: { readonly edition: string; readonly plan: Plan; readonly draft: Plan },
  within: Transaction,
): Promise<void> {
  const open = await rows<{ id: string; chosen: readonly ObjectKey[] }>(
    'SELECT id, chosen FROM requests WHERE network_id = $1 AND answered_at IS NULL',
    [networkId],
    within,
  );
  if (open.length === 0) return;
  const waits = new Set(differing(plan, draft));
  const answered = open.filter(({ chosen }) => chosen.every((key) => !waits.has(keyText(key)))).map(({ id }) => id);
  if (answered.length === 0) return;
  await rows(
    'UPDATE requests SET edition_id = $2, answered_at = now(), answered_by = $3 WHERE id = ANY($1)',
    [answered, edition, personId],
    within,
  );
  await publish({ kind: 'requests', network: networkId }, within);
}

/** A planned edition was cancelled: its requests wait again, except those of people who have asked again since. */
export async function askAgain(networkId: string, edition: string, within: Transaction): Promise<void> {
  await rows(
    `DELETE FROM requests r WHERE r.edition_id = $1 AND
       EXISTS (SELECT 1 FROM requests o WHERE o.person_id = r.person_id AND (o.answered_at IS NULL OR o.edition_id = $1 AND o.id > r.id))`,
    [edition],
    within,
  );
  await rows(
    'UPDATE requests SET edition_id = NULL, answered_at = NULL, answered_by = NULL WHERE edition_id = $1',
    [edition],
    within,
  );
  await publish({ kind: 'requests', network: networkId }, within);
}

/** Forgets what was answered long ago. */
export async function clearRequests(): Promise<void> {
  await rows(`DELETE FROM requests WHERE answered_at < now() - interval '${ANSWERED_DAYS} days'`);
}
