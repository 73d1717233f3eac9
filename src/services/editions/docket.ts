import { LRUCache } from 'lru-cache';
import { changeSentences, currentDocument, namesIn, patchOf, type Kind, type Names, type Problem } from '@/core';
import { rows } from '@/database';
import type { Actor } from '../people';
import { draftPlan, type Draft } from '../plan';
import { compile } from './compile';
import { newestEdition, publishedPrograms, type WholeEdition } from './editions';

/** What became of one object since the last edition. */
export interface DocketEntry {
  readonly kind: Kind;
  readonly id: string;
  readonly name: string;
  readonly what: 'added' | 'changed' | 'removed';
  /** What became of it, a phrase for each field: `priority 4, was 3`. */
  readonly sentences: readonly string[];
  readonly people: readonly string[];
  readonly at: string;
}

/** The changes made since the last edition, and the screens that they touch. */
export interface Docket {
  readonly edition: { readonly number: number; readonly publishedAt: string } | null;
  /** The last change that is counted here: publishing names it. */
  readonly change: number;
  readonly entries: readonly DocketEntry[];
  /** Ids of the screens that would receive another program. */
  readonly screens: readonly string[];
  /** What stands in the way of publishing. */
  readonly problems: readonly Problem[];
}

/** Dockets that were made last, by network: one stands until something is edited or published. */
const remembered = new LRUCache<string, { readonly of: string; readonly docket: Docket }>({ max: 16 });

export async function docket(actor: Actor): Promise<Docket> {
  const { networkId } = actor;
  const newest = await newestEdition(networkId);
  const draft = await draftPlan(actor);
  const of = `${newest?.id ?? ''} ${draft.change}`;
  const found = remembered.get(networkId);
  if (found?.of === of) return found.docket;
  const made = await makeDocket(networkId, newest, draft);
  remembered.set(networkId, { of, docket: made });
  return made;
}

async function makeDocket(networkId: string, newest: WholeEdition | null, { plan, change }: Draft): Promise<Docket> {
  const entries = await netChanges(networkId, newest?.lastChange ?? 0, namesIn(plan));
  const edition = newest && { number: newest.number, publishedAt: newest.publishedAt.toISOString() };
  const published = await publishedPrograms(networkId);
  const compiled = await compile(plan, newest ? { plan: newest.plan, screens: published } : undefined);
  if (!compiled.ok) return { edition, change, entries, screens: [], problems: compiled.problems };
  const now = compiled.value.screens;
  const ids = new Set([...published.keys(), ...now.keys()]);
  const screens = [...ids].filter((id) => published.get(id) !== now.get(id)).sort();
  return { edition, change, entries, screens, problems: [] };
}

interface NetRow {
  kind: Kind;
  object: string;
  before: object | null;
  after: object | null;
  formats: [number, number];
  people: (string | null)[];
  at: Date;
}

/** Object by object: what it was after change number `since`, and what it is now. An object that is as before is left out. */
async function netChanges(networkId: string, since: number, names: Names): Promise<DocketEntry[]> {
  const found = await rows<NetRow>(
    `SELECT c.kind, c.object, (array_agg(c.before ORDER BY c.id))[1] AS before, (array_agg(c.after ORDER BY c.id DESC))[1] AS after,
       ARRAY[(array_agg(c.format ORDER BY c.id))[1], (array_agg(c.format ORDER BY c.id DESC))[1]] AS formats,
       array_agg(DISTINCT p.name) AS people, max(c.at) AS at
     FROM changes c LEFT JOIN people p ON p.id = c.person_id
     WHERE c.network_id = $1 AND c.id > $2 GROUP BY c.kind, c.object ORDER BY max(c.id) DESC`,
    [networkId, since],
  );
  return found.flatMap(({ kind, object, people, at, formats, ...row }): DocketEntry[] => {
    const before = row.before && currentDocument(kind, row.before, formats[0]);
    const after = row.after && currentDocument(kind, row.after, formats[1]);
    if (!patchOf(kind, object, before, after)) return [];
    return [
      {
        kind,
        id: object,
        name: ((after ?? before) as { name?: string } | null)?.name ?? object,
        what: before ? (after ? 'changed' : 'removed') : 'added',
        sentences: changeSentences(kind, before, after, names),
        people: people.filter((name) => name !== null),
        at: at.toISOString(),
      },
    ];
  });
}
