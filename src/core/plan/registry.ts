import type * as z from 'zod';
import type { KindDefinition } from './kind';
import { KINDS } from './kinds';
import { referencePaths, type ReferencePath } from './references';

type Kinds = typeof KINDS;
export type Kind = keyof Kinds;

/** The checked document of a kind. */
export type DocumentOf<K extends Kind> = z.output<Kinds[K]['schema']>;
export type AnyDocument = DocumentOf<Kind>;

/** Kinds of which a plan has a list. */
export type ListedKind = Exclude<Kind, 'network'>;
/** The name of a kind's list in a plan. */
export type Collection<K extends ListedKind = ListedKind> = NonNullable<Kinds[K]['collection']>;

/** A kind's description, when which kind it is shows only at run time: its documents are then known by their common part. */
export type AnyKind = KindDefinition<Kind, Collection | null, object>;

export const ALL_KINDS = Object.keys(KINDS) as readonly Kind[];
export const LISTED_KINDS = ALL_KINDS.filter((kind): kind is ListedKind => kind !== 'network');

export const isKind = (text: unknown): text is Kind => typeof text === 'string' && Object.hasOwn(KINDS, text);

/** The description of any kind. */
export const kindOf = (kind: Kind): AnyKind => KINDS[kind] as AnyKind;

export const collectionOf = <K extends ListedKind>(kind: K): Collection<K> => KINDS[kind].collection as Collection<K>;

const paths = new Map(ALL_KINDS.map((kind) => [kind, referencePaths(KINDS[kind].schema)]));

/** Where documents of a kind refer to others. */
export const referencesOf = (kind: Kind): readonly ReferencePath[] => paths.get(kind) ?? [];
