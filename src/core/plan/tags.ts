/** A tag that things bear, and how many do. */
export interface TagCount {
  readonly tag: string;
  readonly count: number;
}

/** A tag as people write it, as it is kept: "North coast" is `north-coast`. */
export const tagOf = (text: string): string => text.trim().replace(/\s+/g, '-').toLowerCase();

/** The tags of a line, separated by commas, semicolons or line ends: each once, in their order. */
export const tagsOf = (text: string): string[] => [
  ...new Set(
    text
      .split(/[,;\n]/)
      .map(tagOf)
      .filter((tag) => tag !== ''),
  ),
];

/** How often each tag is borne, in the order in which they come. */
export function countTags(things: readonly { readonly tags?: readonly string[] | undefined }[]): TagCount[] {
  const counts = new Map<string, number>();
  for (const { tags = [] } of things) for (const tag of tags) counts.set(tag, (counts.get(tag) ?? 0) + 1);
  return [...counts].map(([tag, count]) => ({ tag, count }));
}
