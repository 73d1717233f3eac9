import type { Entry } from './entries';
import type { EntryWords } from './kind';
import { LISTED_KINDS, collectionOf, kindOf } from './registry';
import type { Plan } from './schema';

/**
 * A network's plan as a plan file writes it: without its entries' own ids. Those say which entry was patched, inside one network;
 * in a file that is read by people and copied by hand they would only be in the way. Reading one finds them again by what entries say.
 * Where others name an entry, its id stays.
 */
export function planFile(plan: Plan): Plan {
  const lists = LISTED_KINDS.map((kind) => {
    const entries: Readonly<Record<string, EntryWords | undefined>> = kindOf(kind).entries ?? {};
    const fields = Object.keys(entries).filter((field) => !entries[field]?.named);
    const list: readonly object[] = plan[collectionOf(kind)];
    return [
      collectionOf(kind),
      fields.length === 0 ? list : list.map((document) => fields.reduce(withoutEntryIds, document)),
    ] as const;
  });
  return { ...plan, ...Object.fromEntries(lists) };
}

function withoutEntryIds(document: object, field: string): object {
  const list = (document as Readonly<Record<string, readonly Entry[]>>)[field] ?? [];
  return { ...document, [field]: list.map(({ id: _id, ...entry }) => entry) };
}
