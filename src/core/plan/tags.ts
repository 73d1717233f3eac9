/** A tag that things bear, and how many do. */
export interface TagCount {
  readonly tag: string;
  readonly count: number;
}

/** How often each tag is borne, in the order in which they come. */
export function countTags(things: readonly { readonly tags?: readonly string[] | undefined }[]): TagCount[] {
  const counts = new Map<string, number>();
  for (const { tags = [] } of things) for (const tag of tags) counts.set(tag, (counts.get(tag) ?? 0) + 1);
  return [...counts].map(([tag, count]) => ({ tag, count }));
}
