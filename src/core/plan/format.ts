import type { OldDocument } from './kind';
import { LISTED_KINDS, collectionOf, kindOf, type Kind } from './registry';
import type { Plan } from './schema';

/**
 * Documents that were written down once and are never written again (an edition's plan, what a change replaced) carry the
 * number of the format that they were written in, and are brought up to date when they are read: kind by kind, by the steps
 * that its description lists under `older`.
 */
export const FORMAT = 2;

/** A document of `format` as it is written today. The same object where nothing changed since. */
export function currentDocument(kind: Kind, document: object, format: number): object {
  if (format > FORMAT)
    throw new RangeError(
      `A document of format ${format} was written by a newer Lanternpost. This one knows ${FORMAT}.`,
    );
  const { older = {} } = kindOf(kind);
  let now = document as OldDocument;
  for (let step = format; step < FORMAT; step++) now = older[step]?.(now) ?? now;
  return now;
}

/** A plan of `format` as it is written today. Collections of kinds that came later are empty. */
export function currentPlan(plan: object, format: number): Plan {
  const old = plan as Readonly<Record<string, unknown>>;
  const lists = LISTED_KINDS.map((kind) => {
    const collection = collectionOf(kind);
    const list = (old[collection] ?? []) as readonly object[];
    return [collection, format === FORMAT ? list : list.map((one) => currentDocument(kind, one, format))] as const;
  });
  return {
    ...(plan as Plan),
    network: currentDocument('network', old.network as object, format) as Plan['network'],
    ...Object.fromEntries(lists),
  };
}
