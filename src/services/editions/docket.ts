import type { Transaction } from 'sequelize';
import { group, sum } from 'd3-array';
import { LRUCache } from 'lru-cache';
import { chosenPlan, type Along, type CompiledEdition, type MadeProgram } from '@/core/edition';
import {
  changeSentences,
  currentDocument,
  keyText,
  namesIn,
  objectsOf,
  patchOf,
  patchesBetween,
  sharing,
  type Kind,
  type ObjectKey,
  type Plan,
} from '@/core/plan';
import type { Result, Problem } from '@/core/refusal';
import { rowsOfMany, transaction } from '@/database';
import type { Actor } from '../people';
import { draftPlan, type Draft, type PlanChange } from '../plan';
import { compile } from './compile';
import { filesOf, programsBy } from './programs';
import { baseOf, compileDraft } from './freeze';
import { newestEdition, programsOf, type Frozen, type WholeEdition } from './frozen';
import { publishedBase } from './publish';
import { plannedWithin, topEdition, type PlannedPlan } from './planned-plans';

/** What became of one object since the last edition. */
export interface DocketEntry extends PlanChange {
  readonly people: readonly string[];
  readonly at: string;
}

/** The changes made since the last edition, and the screens that they touch. */
export interface Docket {
  readonly edition: { readonly number: number; readonly publishedAt: string } | null;
  /** When the last planned edition goes out, on top of which these changes stand; null where none is planned. */
  readonly after: string | null;
  /** Whether the changes come on top of an edition that is being piloted. */
  readonly pilot: boolean;
  /** The last change that is counted here: publishing names it. */
  readonly change: number;
  readonly entries: readonly DocketEntry[];
  /** Ids of the screens that would receive another program. */
  readonly screens: readonly string[];
  readonly fetches: Fetches;
  /** Why the draft can't be published; empty when it can. */
  readonly problems: readonly Problem[];
}

/** What players have to fetch for it that their programs do not have yet, in bytes of the library's files: renditions are smaller. */
export interface Fetches {
  /** Of the screen that fetches most. */
  readonly most: number;
  /** Of all screens together. */
  readonly all: number;
  /** The screens with the most to download come first. */
  readonly each: readonly { readonly bytes: number; readonly screens: readonly string[] }[];
}

/** Some of the changes that wait, as they would be published. */
export interface DocketChoice {
  /** The change that it was counted at. */
  readonly change: number;
  /** Objects that are published too, because a chosen one needs them. */
  readonly along: readonly Along[];
  readonly screens: readonly string[];
  readonly fetches: Fetches;
  readonly problems: readonly Problem[];
}

/** Dockets that were made last, by network: one stands until something is edited or published. */
const remembered = new LRUCache<string, { readonly of: string; readonly docket: Docket }>({ max: 16 });

export async function docket(actor: Actor): Promise<Docket> {
  const { networkId } = actor;
  const newest = await newestEdition(networkId);
  const planned = await plannedWithin(networkId);
  const draft = await draftPlan(actor);
  const of = [newest, ...planned].map((one) => one?.id ?? '').join(' ') + ` ${draft.change}`;
  const found = remembered.get(networkId);
  if (found?.of === of) return found.docket;
  const made = await makeDocket(newest, planned.at(-1) ?? null, { ...draft, networkId });
  remembered.set(networkId, { of, docket: made });
  return made;
}

async function makeDocket(
  newest: WholeEdition | null,
  planned: PlannedPlan | null,
  { plan, change, networkId }: Draft & { readonly networkId: string },
): Promise<Docket> {
  const top = planned ?? newest;
  const entries = await waitingChanges(networkId, top, plan);
  const edition = newest && { number: newest.number, publishedAt: newest.publishedAt.toISOString() };
  const after = planned?.row.plannedFor?.toISOString() ?? null;
  return {
    edition,
    after,
    pilot: !!planned?.row.pilot,
    change,
    entries,
    ...(await touchedBy(top, await compileDraft(networkId, { plan, change }, top))),
  };
}

/** The screens whose program would change from an edition's to the compiled one; or the problems that prevent publishing. */
async function touchedBy(
  edition: Frozen | null,
  compiled: Result<CompiledEdition>,
): Promise<Pick<Docket, 'screens' | 'fetches' | 'problems'>> {
  const published = edition ? await programsOf(edition.id) : new Map<string, string>();
  if (!compiled.ok) return { screens: [], fetches: { most: 0, all: 0, each: [] }, problems: compiled.problems };
  const { screens: now, made } = compiled.value;
  const ids = new Set([...published.keys(), ...now.keys()]);
  const screens = [...ids].filter((id) => published.get(id) !== now.get(id)).sort();
  const moves = screens.map((screen) => ({ screen, from: published.get(screen), to: now.get(screen) }));
  return { screens, fetches: await fetchesOf(moves, made), problems: [] };
}

/** From which program to which each screen goes; none where it is new, or goes. */
interface Move {
  readonly screen: string;
  readonly from: string | undefined;
  readonly to: string | undefined;
}

async function fetchesOf(moves: readonly Move[], made: ReadonlyMap<string, MadeProgram>): Promise<Fetches> {
  const alike = group(
    moves,
    ({ from }) => from,
    ({ to }) => to,
  );
  const had = await filesOf([...alike.keys()].filter((hash) => hash !== undefined));
  // A program that was used before is already in the database, so it is not among the new ones.
  const missing = [...new Set(moves.flatMap(({ to }) => (to !== undefined && !made.has(to) ? [to] : [])))];
  const programs = new Map([...made, ...(await programsBy(missing))]);
  const files = new Map<string, ReadonlyMap<string, number>>();
  const sizesOf = (hash: string): ReadonlyMap<string, number> => {
    const found = files.get(hash);
    if (found) return found;
    const needs = Object.values(programs.get(hash)?.assets ?? {});
    const sizes = new Map(needs.map(({ sha256, bytes }) => [sha256, bytes]));
    files.set(hash, sizes);
    return sizes;
  };
  const by = new Map<number, string[]>();
  for (const [from, row] of alike)
    for (const [to, list] of row) {
      const known = (from === undefined ? undefined : had.get(from)) ?? new Set<string>();
      const bytes = to === undefined ? 0 : sum(sizesOf(to), ([sha256, size]) => (known.has(sha256) ? 0 : size));
      if (bytes > 0) by.set(bytes, [...(by.get(bytes) ?? []), ...list.map(({ screen }) => screen)]);
    }
  const each = [...by].map(([bytes, screens]) => ({ bytes, screens })).sort((a, b) => b.bytes - a.bytes);
  return { most: each[0]?.bytes ?? 0, all: sum(each, ({ bytes, screens }) => bytes * screens.length), each };
}

/** What a choice of the changes would be as an edition: what goes along, and which screens it touches. */
export async function docketChoice(actor: Actor, chosen: readonly ObjectKey[]): Promise<DocketChoice> {
  const top = await topEdition(actor.networkId);
  const draft = await draftPlan(actor);
  const { plan, along } = chosenPlan(publishedBase(top, draft.plan), draft.plan, chosen);
  return { change: draft.change, along, ...(await touchedBy(top, await compile(plan, await baseOf(top)))) };
}

interface ChangeRow {
  readonly kind: Kind;
  readonly object: string;
  readonly before: object | null;
  readonly format: number;
  readonly person: string | null;
  readonly at: Date;
}

/**
 * Object by object: what the last edition has of it that is out or planned, and what it is now, with those who changed it since. An object that is as it was
 * published is left out, whether it was put back, or published by itself.
 */
async function waitingChanges(networkId: string, top: Frozen | null, draft: Plan): Promise<DocketEntry[]> {
  const base = publishedBase(top, draft);
  const differing = patchesBetween(base, sharing(base, draft)).map(({ kind, id = '' }) => ({ kind, id }));
  const ask = (within: Transaction) =>
    rowsOfMany<ChangeRow>(
      `SELECT c.kind, c.object, c.before, c.format, p.name AS person, c.at FROM changes c
     JOIN jsonb_to_recordset($3::jsonb) AS k(kind text, id text) ON k.kind = c.kind AND k.id = c.object
     LEFT JOIN people p ON p.id = c.person_id WHERE c.network_id = $1 AND c.id > $2 ORDER BY c.id`,
      [networkId, top?.lastChange ?? 0, JSON.stringify(differing)],
      differing.length,
      within,
    );
  const found = await transaction(ask);
  const made = new Map<string, ChangeRow[]>();
  for (const row of found) {
    const key = keyText({ kind: row.kind, id: row.object });
    const list = made.get(key);
    // The object changed last stands last.
    made.delete(key);
    made.set(key, list ? [...list, row] : [row]);
  }
  const [published, now] = [objectsOf(base), objectsOf(draft)];
  const names = namesIn(draft);
  return [...made].reverse().flatMap(([key, list]): DocketEntry[] => {
    const [{ kind, object: id } = { kind: 'network' as const, object: '' }] = list;
    const document = (row: ChangeRow | undefined) => row?.before && currentDocument(kind, row.before, row.format);
    const before = published.get(key) ?? null;
    const after = now.get(key) ?? null;
    // What was changed before it was last as it is published has been seen on the glass.
    const begin = list.findLastIndex((row) => !patchOf(kind, id, before, document(row) ?? null));
    const since = list.slice(Math.max(0, begin));
    return [
      {
        kind,
        id,
        name: ((after ?? before) as { name?: string } | null)?.name ?? id,
        what: before ? (after ? 'changed' : 'removed') : 'added',
        sentences: changeSentences(kind, before, after, names),
        people: [...new Set(since.map((row) => row.person).filter((name) => name !== null))].sort(),
        at: (since.at(-1)?.at ?? new Date(0)).toISOString(),
      },
    ];
  });
}
