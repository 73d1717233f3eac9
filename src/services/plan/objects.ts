import type { Transaction } from 'sequelize';
import {
  FORMAT,
  collectionOf,
  currentDocument,
  emptyPlan,
  isKind,
  keyText,
  kindOf,
  linksOf,
  referencesOf,
  type Kind,
  type ObjectKey,
  type Plan,
} from '@/core/plan';
import { rows, rowsOfMany, uuidv7 } from '@/database';
import { notFound } from '../errors';

/** Plan objects in the database: documents as the registry describes them, one row each, whatever their kind. */

/** A network's whole plan, as the database has it now. Entries are in order of their ids, by code unit. */
export async function loadPlan(networkId: string, within?: Transaction): Promise<Plan> {
  const found = await rows<{ kind: string; document: { id: string }; format: number }>(
    `SELECT kind, document, format FROM plan_objects WHERE network_id = $1 ORDER BY slug`,
    [networkId],
    within,
  );
  const plan = emptyPlan('');
  let known = false;
  for (const { kind, document, format } of found) {
    if (!isKind(kind)) continue;
    const now = currentDocument(kind, document, format);
    if (kind === 'network') {
      plan.network = now as Plan['network'];
      known = true;
    } else (plan[collectionOf(kind)] as object[]).push(now);
  }
  if (!known) throw notFound('network');
  return plan;
}

/** The documents of some objects, by `keyText`; those that do not exist are left out. One statement. */
export async function loadObjects(
  networkId: string,
  keys: readonly ObjectKey[],
  within: Transaction,
): Promise<Map<string, object>> {
  const found = await rowsOfMany<{ kind: Kind; slug: string; document: object; format: number }>(
    `SELECT o.kind, o.slug, o.document, o.format FROM plan_objects o
     JOIN jsonb_to_recordset($2::jsonb) AS k(kind text, id text) ON o.kind = k.kind AND o.slug = k.id WHERE o.network_id = $1`,
    [networkId, JSON.stringify(keys)],
    keys.length,
    within,
  );
  return new Map(
    found.map(({ kind, slug, document, format }) => [
      keyText({ kind, id: slug }),
      currentDocument(kind, document, format),
    ]),
  );
}

/** The ids that are taken of those that begin with a base: it alone, or with a number behind it. */
export async function takenIds(
  networkId: string,
  bases: readonly { readonly kind: Kind; readonly base: string }[],
  within: Transaction,
): Promise<ObjectKey[]> {
  const found = await rows<{ kind: Kind; slug: string }>(
    `SELECT DISTINCT o.kind, o.slug FROM plan_objects o
     JOIN jsonb_to_recordset($2::jsonb) AS b(kind text, base text)
       ON o.kind = b.kind AND (o.slug = b.base OR (o.slug >= b.base || '-' AND o.slug < b.base || '.')) WHERE o.network_id = $1`,
    [networkId, JSON.stringify(bases)],
    within,
  );
  return found.map(({ kind, slug }) => ({ kind, id: slug }));
}

/** What an object becomes; null removes it. */
export interface Write extends ObjectKey {
  readonly before: object | null;
  readonly after: object | null;
}

/** Writes checked objects and their links: at most four statements, however many there are. Returns the row ids of new objects. */
export async function writeObjects(networkId: string, writes: readonly Write[], within: Transaction): Promise<void> {
  const gone = writes.filter(({ before, after }) => before && !after);
  const kept = writes.filter((one): one is Write & { after: object } => one.after !== null);
  if (gone.length > 0)
    await rowsOfMany(
      `DELETE FROM plan_objects o USING jsonb_to_recordset($2::jsonb) AS k(kind text, id text)
       WHERE o.network_id = $1 AND o.kind = k.kind AND o.slug = k.id`,
      [networkId, JSON.stringify(gone.map(({ kind, id }) => ({ kind, id })))],
      gone.length,
      within,
    );
  if (kept.length === 0) return;
  const renamed = kept.filter(({ before, after }) => before && nameOf(before) !== nameOf(after));
  // Names that are exchanged between objects are taken off all of them first.
  if (renamed.length > 1)
    await rowsOfMany(
      `UPDATE plan_objects o SET name_scope = NULL FROM jsonb_to_recordset($2::jsonb) AS k(kind text, id text)
       WHERE o.network_id = $1 AND o.kind = k.kind AND o.slug = k.id`,
      [networkId, JSON.stringify(renamed.map(({ kind, id }) => ({ kind, id })))],
      renamed.length,
      within,
    );
  await rows(
    `INSERT INTO plan_objects (id, network_id, kind, slug, name, name_scope, document, format)
     SELECT w.row, $1, w.kind, w.slug, w.name, w.scope, w.document, $3
     FROM jsonb_to_recordset($2::jsonb) AS w(row uuid, kind text, slug text, name text, scope text, document jsonb)
     ON CONFLICT (network_id, kind, slug) DO UPDATE
       SET name = excluded.name, name_scope = excluded.name_scope, document = excluded.document, format = excluded.format`,
    [networkId, JSON.stringify(kept.map(rowOf)), FORMAT],
    within,
  );
  await writeLinks(networkId, kept, within);
}

const nameOf = (document: object) => (document as { name: string }).name;

const rowOf = ({ kind, id, after }: Write & { after: object }) => ({
  row: uuidv7(),
  kind,
  slug: id,
  name: nameOf(after),
  scope: kindOf(kind).nameScope(after),
  document: after,
});

/** What a document refers to, each once. */
export function targetsOf(kind: Kind, document: object | null): ObjectKey[] {
  const links = document ? linksOf(document, referencesOf(kind)) : [];
  return [
    ...new Map(links.map((link) => [`${link.kind} ${link.id}`, { kind: link.kind as Kind, id: link.id }])).values(),
  ];
}

async function writeLinks(networkId: string, kept: readonly Write[], within: Transaction): Promise<void> {
  const linksText = (kind: Kind, document: object | null) => targetsOf(kind, document).map(keyText).sort().join('\n');
  const changed = kept.filter(({ kind, before, after }) => linksText(kind, before) !== linksText(kind, after));
  if (changed.length === 0) return;
  if (changed.some(({ before }) => before))
    await rowsOfMany(
      `DELETE FROM plan_links l USING jsonb_to_recordset($2::jsonb) AS k(kind text, id text)
       WHERE l.network_id = $1 AND l.from_kind = k.kind AND l.from_slug = k.id`,
      [networkId, JSON.stringify(changed.map(({ kind, id }) => ({ kind, id })))],
      changed.length,
      within,
    );
  const links = changed.flatMap(({ kind, id, after }) =>
    targetsOf(kind, after).map((target) => ({ fk: kind, fs: id, tk: target.kind, ts: target.id })),
  );
  if (links.length > 0)
    await rows(
      `INSERT INTO plan_links (network_id, from_kind, from_slug, to_kind, to_slug)
       SELECT $1, l.fk, l.fs, l.tk, l.ts FROM jsonb_to_recordset($2::jsonb) AS l(fk text, fs text, tk text, ts text)`,
      [networkId, JSON.stringify(links)],
      within,
    );
}
