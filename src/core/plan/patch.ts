import equal from 'fast-deep-equal';
import { entryPatches, fieldsThatDiffer, withEntries, withEntryIds, withFields, withoutUndefined } from './entries';
import type { Entry, EntryPatch, FieldConflict, Fields } from './entries';
import { LISTED_KINDS, collectionOf, kindOf, type DocumentOf, type Kind, type ListedKind } from './registry';
import type { Plan } from './schema';

/**
 * An edit is a patch of one object: it is added, removed, or some of its fields are set. A patch names what was seen before
 * (`was`), so that whoever makes it can tell two people's changes of different fields (both stand) from changes of the same one.
 * The browser, the server, undo, the docket and import all make the same patches by the same `merge`.
 */
export type Patch<K extends Kind = Kind> = { readonly [One in K]: Adding<One> | Setting<One> | Removing<One> }[K];

/** Fields as people write them: those that have a default may be absent. */
type Written<K extends Kind> = Omit<DocumentOf<K>, 'id' | 'priority' | 'when'> &
  Partial<Pick<DocumentOf<K>, keyof DocumentOf<K> & ('priority' | 'when')>>;
type Changes<K extends Kind> = { readonly [F in Exclude<keyof DocumentOf<K>, 'id'>]?: DocumentOf<K>[F] | null };

/** A new object; without an id, one made from its name. */
export interface Adding<K extends Kind = Kind> {
  readonly kind: K;
  readonly id?: string | undefined;
  readonly add: Written<K>;
}

/** Fields that change; null takes one away. Lists whose entries have ids are changed entry by entry in `entries`. */
export interface Setting<K extends Kind = Kind> {
  readonly kind: K;
  readonly id: string;
  readonly set: Changes<K>;
  readonly was?: Changes<K> | undefined;
  readonly entries?: Readonly<Record<string, readonly EntryPatch[]>> | undefined;
}

export interface Removing<K extends Kind = Kind> {
  readonly kind: K;
  readonly id: string;
  readonly remove: true;
  readonly was?: object | undefined;
}

/** A patch whose fields are not checked yet: as it comes over the wire. */
export type LoosePatch =
  | { readonly kind: Kind; readonly id?: string | undefined; readonly add: object }
  | {
      readonly kind: Kind;
      readonly id: string;
      readonly set: object;
      readonly was?: object | undefined;
      readonly entries?: Readonly<Record<string, readonly EntryPatch[]>> | undefined;
    }
  | { readonly kind: Kind; readonly id: string; readonly remove: true; readonly was?: object | undefined };

/** The network's id among plan objects. */
export const NETWORK_ID = 'network';

/** The patch that makes one document of another; null where they say the same. `before` null adds, `after` null removes. */
export function patchOf<K extends Kind>(
  kind: K,
  id: string,
  before: object | null,
  after: object | null,
): Patch<K> | null {
  const loose = (patch: LoosePatch) => patch as Patch<K>;
  if (!after) return before && loose({ kind, id, remove: true, was: withoutId(before) });
  if (!before) return loose({ kind, id, add: withoutId(after) });
  const lists = Object.keys(kindOf(kind).entries ?? {});
  const differs = fieldsThatDiffer(without(before, lists), without(after, lists));
  const entries = lists.flatMap((field) => {
    const patches = entryPatches(listIn(before, field), listIn(after, field));
    return patches.length > 0 ? [[field, patches] as const] : [];
  });
  if (!differs && entries.length === 0) return null;
  return loose({
    kind,
    id,
    ...(differs ?? { set: {} }),
    ...(entries.length > 0 ? { entries: Object.fromEntries(entries) } : {}),
  });
}

/** The patch that adds an object; its id is made from its name. */
export const added = <K extends ListedKind>(kind: K, document: object): Patch<K> =>
  ({ kind, add: withoutId(withoutUndefined(document)) }) as LoosePatch as Patch<K>;

/** A patch of what was done, for those who only follow: it needs no memory of what was seen before. */
export function withoutWas(patch: LoosePatch): LoosePatch {
  if ('add' in patch) return patch;
  const { was: _was, ...rest } = patch;
  if (!('set' in rest) || !rest.entries) return rest as LoosePatch;
  const entries = Object.entries(rest.entries).map(([field, list]) => [
    field,
    list.map((one) => {
      const { was: _seen, ...entry } = one as EntryPatch & { was?: unknown };
      return entry as EntryPatch;
    }),
  ]);
  return { ...rest, entries: Object.fromEntries(entries) as Readonly<Record<string, readonly EntryPatch[]>> };
}

/** The patch, as a list, that changes some fields of an object that is at hand; empty where nothing changes. */
export function changed<K extends ListedKind>(
  kind: K,
  object: DocumentOf<K>,
  change: Partial<DocumentOf<K>>,
): Patch<K>[] {
  const patch = patchOf(kind, object.id, object, { ...object, ...change });
  return patch ? [patch] : [];
}

/** The patch that removes an object that is at hand. */
export const removed = <K extends ListedKind>(kind: K, object: DocumentOf<K>): Patch<K> =>
  patchOf(kind, object.id, object, null) as Patch<K>;

/** The result of applying a patch to an object's document, and the fields that another person had changed too. */
export interface Merged {
  /** Null where it is removed, or where there is nothing to change. */
  readonly after: object | null;
  readonly conflicts: readonly FieldConflict[];
}

/**
 * Makes a patch of an object as it is now (null: there is none). Fields that the patch does not name stay as they are; where
 * another person has changed a field that it names, the patch's value is taken, and the conflict is reported. Nothing is checked.
 */
export function merge(patch: LoosePatch, id: string, now: object | null): Merged {
  const conflicts: FieldConflict[] = [];
  const lists = Object.keys(kindOf(patch.kind).entries ?? {});
  if ('add' in patch) {
    const made = withIds(withoutUndefined({ ...patch.add }), lists);
    return { after: patch.kind === 'network' ? made : { id, ...made }, conflicts };
  }
  if ('remove' in patch) {
    const differs = now && patch.was && fieldsThatDiffer(patch.was, now);
    for (const [field, theirs] of Object.entries(differs ? differs.set : {}))
      conflicts.push({ field, theirs, mine: null });
    return { after: null, conflicts };
  }
  if (!now) return { after: null, conflicts };
  // A list that is given whole is patched against what was seen of it, or against what is there.
  const whole = lists.filter((field) => Object.hasOwn(patch.set, field));
  const given = { ...patch.set } as Fields;
  const seen = { ...patch.was } as Fields;
  const set = { ...without(patch.set, whole) } as Fields;
  let after = withFields(now, set, patch.was && seen, conflicts);
  for (const field of whole) {
    const patches = entryPatches(
      (seen[field] as Entry[] | undefined) ?? listIn(now, field),
      (given[field] as Entry[] | null) ?? [],
    );
    after = { ...after, [field]: withEntries(listIn(now, field), patches, conflicts) };
  }
  for (const [field, patches] of Object.entries(patch.entries ?? {}))
    if (lists.includes(field)) after = { ...after, [field]: withEntries(listIn(after, field), patches, conflicts) };
  return { after, conflicts };
}

const withoutId = (document: object): object => without(document, ['id']);

const without = (document: object, fields: readonly string[]): object =>
  fields.length === 0
    ? document
    : Object.fromEntries(Object.entries(document).filter(([field]) => !fields.includes(field)));

const listIn = (document: object, field: string): readonly Entry[] => {
  const list = (document as Fields)[field];
  return Array.isArray(list) ? (list as Entry[]) : [];
};

const withIds = (document: object, lists: readonly string[]): object =>
  lists.reduce<object>((made, field) => ({ ...made, [field]: withEntryIds(listIn(made, field)) }), document);

/** An object of a plan; null where it has none of this id. */
export function objectIn<K extends Kind>(plan: Plan, kind: K, id: string): DocumentOf<K> | null {
  if (kind === 'network') return plan.network as DocumentOf<K>;
  const list: readonly { readonly id: string }[] = plan[collectionOf(kind as ListedKind)];
  return (list.find((one) => one.id === id) as DocumentOf<K> | undefined) ?? null;
}

/**
 * The plan with patches made to it: for looking ahead, and for following what others do. Nothing is checked; a new object
 * without an id gets a passing one (`new-0` for the first patch). What no patch touches is shared with the plan before.
 */
export function withPatches(plan: Plan, patches: readonly LoosePatch[]): Plan {
  const changes = patches.map((patch, i) => {
    const id = patch.id ?? `new-${i}`;
    return { patch, id };
  });
  let result = plan;
  for (const { patch, id } of changes)
    result = withObject(result, patch.kind, id, merge(patch, id, objectIn(result, patch.kind, id)).after);
  return result;
}

/** The plan with one object as it is now; null takes it away. Shares the rest, and is the same plan where nothing changes. */
export function withObject(plan: Plan, kind: Kind, id: string, document: object | null): Plan {
  if (kind === 'network')
    return document && !equal(document, plan.network) ? { ...plan, network: document as Plan['network'] } : plan;
  const collection = collectionOf(kind);
  const list: readonly { readonly id: string }[] = plan[collection];
  const at = list.findIndex((one) => one.id === id);
  if (at < 0 && !document) return plan;
  const made = document as { id: string } | null;
  const next = made ? (at < 0 ? inserted(list, made) : list.with(at, made)) : list.filter((_, i) => i !== at);
  return { ...plan, [collection]: next };
}

/** In order of ids, as the database lists them, where the list is in that order. */
function inserted<T extends { readonly id: string }>(list: readonly T[], made: T): readonly T[] {
  const at = list.findIndex((one) => one.id > made.id);
  return at < 0 ? [...list, made] : list.toSpliced(at, 0, made);
}

/**
 * The patches that lead from one plan to another. Objects that are the same object are not looked into, so that between plans
 * that share what they have in common it costs what differs.
 */
export function patchesBetween(from: Plan, to: Plan): Patch[] {
  if (from === to) return [];
  const network = from.network === to.network ? null : patchOf('network', NETWORK_ID, from.network, to.network);
  const lists = LISTED_KINDS.flatMap((kind): Patch[] => {
    const [old, next]: (readonly { readonly id: string }[])[] = [from[collectionOf(kind)], to[collectionOf(kind)]];
    if (!old || !next || old === next) return [];
    const before = new Map(old.map((one) => [one.id, one]));
    const after = new Map(next.map((one) => [one.id, one]));
    const ids = [...new Set([...before.keys(), ...after.keys()])].filter((id) => before.get(id) !== after.get(id));
    return ids.flatMap((id) => patchOf(kind, id, before.get(id) ?? null, after.get(id) ?? null) ?? []);
  });
  return [...(network ? [network] : []), ...lists];
}
