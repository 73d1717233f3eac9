import { currentDocument, kindOf, patchOf, type Kind } from '@/core/plan';
import { Refusal } from '@/core/refusal';
import type { Transaction } from 'sequelize';
import { ChangeRow, rows, transaction, uuidv7 } from '@/database';
import { demand, type Actor } from '../people';
import { editWithin, type Act, type EditResult } from './edits';
import type { Edit } from './merge';
import type { MediaFiles } from './media-files';
import { inTurn, takeTurn } from './turns';

/** How long after it an act can be taken back: a working day and the night after it. */
export const UNDO_MS = 24 * 60 * 60_000;

/** How far back undo looks: more acts than anybody takes back one by one. */
const ACTS_KEPT = 500;

export type Way = 'undo' | 'redo';

/** An act that is no longer fresh is taken back when it is asked for again: who comes back to a window may mean another. */
const FRESH_MS = 15 * 60_000;

export interface UndoResult extends EditResult {
  /** What it was about, as in `"Morning sailings" and 2 more`; null where there was nothing to take back. */
  readonly about: string | null;
  /** Nothing was taken back yet: the act that would be, and how long ago it was. Absent where it was done. */
  readonly asks?: { readonly act: string; readonly ageMs: number } | undefined;
}

/**
 * What undo and redo would take back next, from what a person did by hand, in order: an undo takes the last act that stands, a redo the
 * last undo, and an act of any other kind ends what could be made again. The same rule in every window and after every reload,
 * because nothing is remembered but the acts.
 */
export function nextActs(acts: readonly Act[]): { readonly undo: string | null; readonly redo: string | null } {
  const done: string[] = [];
  let undone: string[] = [];
  for (const { id, takesBack } of acts) {
    if (takesBack !== undefined && done.at(-1) === takesBack) {
      done.pop();
      undone.push(id);
    } else {
      done.push(id);
      if (takesBack !== undefined && undone.at(-1) === takesBack) undone.pop();
      else undone = [];
    }
  }
  return { undo: done.at(-1) ?? null, redo: undone.at(-1) ?? null };
}

/**
 * Takes back the person's last act, or makes again what they took back last, as new changes: of each object the fields that the act
 * changed, so that other people's changes of its other fields stay. Refused with 409 if another person changed the same field since; such an
 * act is then given up, so that the next undo goes further back. An act older than a quarter of an hour is only named, unless it is `sure`.
 */
export async function undo(actor: Actor, way: Way, sure?: string): Promise<UndoResult> {
  demand(actor, 'plan');
  let tried: string | null = null;
  try {
    return await inTurn(actor.networkId, async (within) => {
      await takeTurn(actor.networkId, within);
      tried = nextActs(await actsOf(actor, within))[way];
      if (tried === null) return { ...NOTHING, about: null };
      const made = await changesOf(actor, tried, within);
      const ageMs = Date.now() - Math.max(...made.map(({ at }) => at.getTime()));
      if (way === 'undo' && ageMs > FRESH_MS && sure !== tried)
        return { ...NOTHING, about: aboutChanges(made), asks: { act: tried, ageMs } };
      const edits = made.flatMap((row): Edit[] => {
        const patch = patchOf(row.kind, row.object, current(row, row.after), current(row, row.before));
        const files = (row.columns ?? undefined) as MediaFiles | undefined;
        return patch ? [{ ...patch, files }] : [];
      });
      const result = await editWithin(actor, edits, within, { id: uuidv7(), takesBack: tried });
      return { ...result, about: aboutChanges(made) };
    });
  } catch (error) {
    if (tried === null || !(error instanceof Refusal)) throw error;
    const told = await toldAgain(actor, tried, error);
    await giveUp(actor, tried);
    throw told;
  }
}

/** What undo and redo would do now, in words as `undo` has them; null for nothing. */
export async function nextToTakeBack(actor: Actor): Promise<Readonly<Record<Way, string | null>>> {
  return transaction(async (within) => {
    const next = nextActs(await actsOf(actor, within));
    const about = async (act: string | null) =>
      act === null ? null : aboutChanges(await changesOf(actor, act, within));
    return { undo: await about(next.undo), redo: await about(next.redo) };
  });
}

/** The changes of an act, the last one first. */
const changesOf = ({ networkId }: Actor, act: string, transaction: Transaction) =>
  ChangeRow.findAll({ where: { networkId, act }, order: [['id', 'DESC']], transaction });

const NOTHING: EditResult = { change: 0, previous: 0, changes: [], ids: [], patches: [], media: [] };

async function actsOf({ networkId, personId }: Actor, within: Transaction): Promise<Act[]> {
  const found = await rows<{ id: string; takesBack: string | null }>(
    `SELECT act AS id, takes_back AS "takesBack" FROM changes
     WHERE network_id = $1 AND person_id = $2 AND act IS NOT NULL AND NOT by_key AND at > now() - $3 * interval '1 millisecond'
     GROUP BY act, takes_back ORDER BY max(id) DESC LIMIT $4`,
    [networkId, personId, UNDO_MS, ACTS_KEPT],
    within,
  );
  return found.reverse().map(({ id, takesBack }) => ({ id, takesBack: takesBack ?? undefined }));
}

const current = ({ kind, format }: ChangeRow, document: object | null) =>
  document && currentDocument(kind, document, format);

/** An undo never overwrites another person's later change. This says which object is in the way, by its name. */
async function toldAgain({ networkId }: Actor, act: string, error: Refusal): Promise<Refusal> {
  if (error.status !== 409 && error.status !== 404) return error;
  const [row] = await rows<{ kind: Kind; name: string }>(
    `SELECT c.kind, coalesce(o.name, c.before->>'name', c.after->>'name') AS name FROM changes c
     LEFT JOIN plan_objects o ON o.network_id = c.network_id AND o.kind = c.kind AND o.slug = c.object
     WHERE c.network_id = $1 AND c.act = $2 AND EXISTS (SELECT 1 FROM changes later WHERE later.network_id = c.network_id
       AND later.kind = c.kind AND later.object = c.object AND later.id > c.id) ORDER BY c.id DESC LIMIT 1`,
    [networkId, act],
  );
  return row
    ? new Refusal(
        409,
        `The ${kindOf(row.kind).noun} “${row.name}” has been changed by someone since, so your change of it can’t be undone. Undo again to go further back.`,
        error.problems,
      )
    : error;
}

async function giveUp({ networkId, personId }: Actor, act: string): Promise<void> {
  await ChangeRow.update({ act: null, takesBack: null }, { where: { networkId, personId, act } });
}

function aboutChanges(made: readonly ChangeRow[]): string {
  const [first, ...rest] = [...made].reverse().map((row) => {
    const document = (row.after ?? row.before) as { name?: string };
    return document.name ?? row.object;
  });
  return `“${first ?? ''}”${rest.length > 0 ? ` and ${rest.length} more` : ''}`;
}
