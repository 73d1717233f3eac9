import type * as z from 'zod';

/** How an object of a kind is called, by its id; the id itself where it is not known. */
export type Names = (kind: string, id: string) => string;

/** How a field is named and its values are spoken, in sentences about changes. A value that is absent is never asked for. */
export interface FieldWords<V = never> {
  readonly label: string;
  say(value: V, names: Names): string;
  /** A change to this value in words, where "label new, was old" would read badly: "file replaced". */
  became?(value: V): string;
}

/** A document as it may have been written in an older format: nothing is known of its fields. */
export type OldDocument = Readonly<Record<string, unknown>>;

/**
 * A kind of plan object, described once. From this follow reading and checking, the columns of the database, references, patches,
 * conflicts, sentences, undo, import and the JSON Schema (`registry.ts`).
 */
export interface KindDefinition<K extends string, C extends string | null, D extends object> {
  readonly kind: K;
  /** The plan's list of them; null for the network, of which there is one. */
  readonly collection: C;
  /** What people call it, as in "This media file doesn't exist". */
  readonly noun: string;
  readonly schema: z.ZodType<D> & { readonly shape: Readonly<Record<string, z.core.$ZodType>> };
  /** Its fields in the order in which sentences name them. */
  readonly fields: { readonly [F in Exclude<keyof D, 'id'>]-?: FieldWords<Exclude<D[F], undefined>> };
  /** Within what its name is unique (in any case); null where names may be alike. */
  nameScope(document: D): string | null;
  /** Fields that are measured rather than chosen: people can't edit them. */
  readonly measured?: readonly (keyof D & string)[];
  /** Fields that are lists whose entries have ids of their own: patched entry by entry. */
  readonly entries?: { readonly [F in keyof D & string]?: EntryWords };
  /** How it was written before: `older[n]` makes of a document in format n one in format n + 1. Absent: the same. */
  readonly older?: Readonly<Record<number, (document: OldDocument) => OldDocument>>;
}

/** How the entries of a list are named and their fields spoken. */
export interface EntryWords {
  /** Whether an entry's id is a part of what is said, since others name it: then plan files have it too. */
  readonly named?: boolean;
  /** How an entry is called in a sentence. */
  name(entry: OldDocument, names: Names): string;
  readonly fields: Readonly<Record<string, FieldWords>>;
}

/** Infers a kind's literal types from its description. */
export function defineKind<const K extends string, const C extends string | null, D extends object>(
  definition: KindDefinition<K, C, D>,
): KindDefinition<K, C, D> {
  return definition;
}
