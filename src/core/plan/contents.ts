/**
 * What can be shown, each kind described once. A content names an object of one of these kinds by its id: `{ playlist: 'house' }`. Each
 * is a kind of plan object as well (`kinds/`). No schemas here: players read this too.
 */
export const CONTENTS = {
  media: { called: 'file', timed: true, looks: true },
  playlist: { called: 'playlist', timed: false, looks: false },
} as const satisfies Readonly<Record<string, ContentDescription>>;

interface ContentDescription {
  /** What people call it beside its name. */
  readonly called: string;
  /** Whether who shows it may say for how long. Otherwise what is in it says that. */
  readonly timed: boolean;
  /** Whether an item has a transition, a fit and a volume for it. Otherwise what is in it has its own. */
  readonly looks: boolean;
}

export type ContentKind = keyof typeof CONTENTS;

export const CONTENT_KINDS = Object.keys(CONTENTS) as readonly ContentKind[];

export const isContentKind = (kind: string): kind is ContentKind => Object.hasOwn(CONTENTS, kind);

/** An object that names one content of a kind, and none of another. */
export type Naming<K extends ContentKind> = { readonly [P in K]: string } & {
  readonly [P in Exclude<ContentKind, K>]?: undefined;
} & { readonly durationMs?: ((typeof CONTENTS)[K]['timed'] extends true ? number : never) | undefined };

/** What is shown (domain section 1): one file, a playlist. */
export type Content = { [K in ContentKind]: Naming<K> }[ContentKind];

/** A content with its kind beside it. */
export type KnownContent = {
  [K in ContentKind]: { readonly kind: K; readonly id: string; readonly durationMs?: number | undefined };
}[ContentKind];

/** The content that an object names; undefined where it names none. */
export function namedIn(
  one: { readonly [K in ContentKind]?: string | undefined } & { readonly durationMs?: number | undefined },
): KnownContent | undefined {
  const kind = CONTENT_KINDS.find((each) => one[each] !== undefined);
  return kind && { kind, id: one[kind] as string, durationMs: one.durationMs };
}

export const knownContent = (content: Content): KnownContent => namedIn(content) as KnownContent;

/** The content of a kind and an id, for so many milliseconds where that is said; `knownContent` the other way. */
export const contentFrom = ({ kind, id, durationMs }: KnownContent): Content =>
  ({ [kind]: id, ...(durationMs === undefined || !CONTENTS[kind].timed ? {} : { durationMs }) }) as Content;

/** A content as one word, for finding the same one. */
export function contentKey(content: Content): string {
  const { kind, id, durationMs } = knownContent(content);
  return CONTENTS[kind].timed ? `${kind} ${id} ${durationMs ?? ''}` : `${kind} ${id}`;
}
