import type { Transaction } from 'sequelize';
import { collectedBy, currentDocument, mediaOf, rulesOf, type Kind, type Media } from '@/core/plan';
import { rows } from '@/database';

/** What became of an object. */
interface Made {
  readonly kind: Kind;
  readonly id: string;
  readonly before: object | null;
  readonly after: object | null;
}

const newIn = (before: ReadonlySet<string>, after: ReadonlySet<string>) => [...after].filter((one) => !before.has(one));

/**
 * The files, as they are now, that a page may not have and needs to follow changes: files that were changed, and those that came
 * into use, by name or by a rule. Asks nothing of the database where there are none.
 */
export async function namedMedia(networkId: string, made: readonly Made[], within?: Transaction): Promise<Media[]> {
  const ids = made.flatMap(({ kind, id, before, after }) => [
    ...(kind === 'media' && before && after ? [id] : []),
    ...newIn(mediaOf(kind, before), mediaOf(kind, after)),
  ]);
  const rules = new Set(made.flatMap(({ kind, before, after }) => newIn(rulesOf(kind, before), rulesOf(kind, after))));
  if (ids.length + rules.size === 0) return [];
  const found = await rows<{ document: object; format: number }>(
    `SELECT document, format FROM plan_objects
     WHERE network_id = $1 AND kind = 'media' AND ($3 OR slug = ANY($2)) ORDER BY slug`,
    [networkId, ids, rules.size > 0],
    within,
  );
  const media = found.map(({ document, format }) => currentDocument('media', document, format) as Media);
  const named = new Set([...ids, ...collectedBy(rules, media).map(({ id }) => id)]);
  return media.filter(({ id }) => named.has(id));
}
