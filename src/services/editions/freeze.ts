import { LRUCache } from 'lru-cache';
import type { CreationAttributes, Transaction } from 'sequelize';
import type { CompiledBase, CompiledEdition } from '@/core/edition';
import { FORMAT, type Plan } from '@/core/plan';
import { done, type Result } from '@/core/refusal';
import { EditionRow, rows } from '@/database';
import { compile } from './compile';
import { deliverEdition, deliveredAsBefore } from './deliver';
import { type Frozen, programsOf, remember } from './frozen';
import { writePrograms } from './programs';

/** Makes an edition of a plan: its programs, and what its screens get of them. */

/** Compiled drafts, by change and base edition: people publish right after the docket was counted. Few are kept, since they are large. */
const compiledDrafts = new LRUCache<string, CompiledEdition>({ max: 2 });

/** Compiles the draft at a change on top of an edition, once for both the docket and the publication. Throws as `compile` does. */
export async function compileDraft(
  networkId: string,
  { plan, change }: { readonly plan: Plan; readonly change: number },
  edition: Frozen | null,
  within?: Transaction,
): Promise<Result<CompiledEdition>> {
  const key = `${networkId} ${edition?.id ?? ''} ${change}`;
  const known = compiledDrafts.get(key);
  if (known) return done(known);
  const compiled = await compile(plan, await baseOf(edition, within));
  if (compiled.ok) compiledDrafts.set(key, compiled.value);
  return compiled;
}

/** What an edition was compiled to; undefined for none. */
export async function baseOf(edition: Frozen | null, within?: Transaction): Promise<CompiledBase | undefined> {
  return edition ? { plan: edition.plan, screens: await programsOf(edition.id, within) } : undefined;
}

/** Writes an edition's row, its programs, and what its screens get of them. `before` is what they have until then. */
export async function freeze(
  edition: Omit<CreationAttributes<EditionRow>, 'format' | 'plan'> & { readonly plan: Plan },
  { screens, made }: CompiledEdition,
  before: Frozen | null,
  within: Transaction,
): Promise<string> {
  await writePrograms(made, within);
  const { id } = await EditionRow.create({ ...edition, format: FORMAT }, { transaction: within });
  const { plan } = edition;
  const known = await deliveredAsBefore({ plan, screens }, before, within);
  const ids = [...screens.keys()];
  await rows(
    'INSERT INTO edition_screens (edition_id, screen, hash, delivered) SELECT $1, * FROM unnest($2::text[], $3::text[], $4::text[])',
    [id, ids, [...screens.values()], ids.map((screen) => known.get(screen) ?? null)],
    within,
  );
  const only = new Set(plan.screens.map((screen) => screen.id).filter((screen) => !known.has(screen)));
  if (only.size > 0) await deliverEdition({ id, plan, only, compiled: made }, within);
  remember(id, plan);
  return id;
}
