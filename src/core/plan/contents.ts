/**
 * What can be shown, each kind described once. A content names one of these by its id: `{ playlist: 'house' }`. Each but an input
 * is a kind of plan object as well (`kinds/`); inputs are listed by profiles. No schemas here: players read this too.
 */
export const CONTENTS = {
  media: { called: 'file', timed: true, looks: true, rounds: true },
  playlist: { called: 'playlist', timed: false, looks: false, rounds: true },
  layout: { called: 'layout', timed: true, looks: true, rounds: false },
  bulletin: { called: 'bulletin', timed: true, looks: true, rounds: false },
  input: { called: 'input', timed: true, looks: true, rounds: false },
} as const satisfies Readonly<Record<string, ContentDescription>>;

interface ContentDescription {
  /** What people call it beside its name. */
  readonly called: string;
  /** Whether who shows it may say for how long. Otherwise what is in it says that. */
  readonly timed: boolean;
  /** Whether an item has a transition, a fit and a volume for it. Otherwise what is in it has its own. */
  readonly looks: boolean;
  /** Whether it goes round where it is booked itself. What doesn't is one play for as long as it is on (domain section 10). */
  readonly rounds: boolean;
}

export type ContentKind = keyof typeof CONTENTS;

export const CONTENT_KINDS = Object.keys(CONTENTS) as readonly ContentKind[];

/** What a loop's turns show: contents other than playlists, which are flattened. */
export type DrawnKind = Exclude<ContentKind, 'playlist'>;

export const DRAWN_KINDS = CONTENT_KINDS.filter((kind): kind is DrawnKind => kind !== 'playlist');

/** One drawn content, named by its kind: `{ media: 'tide' }`. */
export type Drawn = { readonly [K in DrawnKind]?: string | undefined };

/** The kind and the id of what a turn shows. */
export function drawnIn(one: Drawn): { readonly kind: DrawnKind; readonly id: string } {
  const kind = DRAWN_KINDS.find((each) => one[each] !== undefined) ?? 'media';
  return { kind, id: one[kind] ?? '' };
}

/** What a turn shows and nothing else of it: `{ media: 'tide' }`. */
export const drawnOnly = (one: Drawn): Drawn => {
  const { kind, id } = drawnIn(one);
  return { [kind]: id };
};

export const isContentKind = (kind: string): kind is ContentKind => Object.hasOwn(CONTENTS, kind);

/** An object that names one content of a kind, and none of another. */
export type Naming<K extends ContentKind> = { readonly [P in K]: string } & {
  readonly [P in Exclude<ContentKind, K>]?: undefined;
} & { readonly durationMs?: ((typeof CONTENTS)[K]['timed'] extends true ? number : never) | undefined };

/** What is shown (domain sections 1 and 10): a file, a playlist, a layout, a bulletin, an input. */
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
