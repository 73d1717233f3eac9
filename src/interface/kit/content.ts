import { itemFiles, knownContent, knownItem, never, type Content, type Item, type Plan } from '@/core';

/** A content as a form's value: `playlist:house`, `media:line-flag`, or empty for none. */
export function contentValue(content: Content | undefined): string {
  if (!content) return '';
  const { kind, id } = knownContent(content);
  return `${kind}:${id}`;
}

/** The content of such a value; `durationMs` is for a file alone. */
export function contentOf(value: string, durationMs?: number): Content | undefined {
  const [kind, id] = value.split(':');
  if (!id) return undefined;
  switch (kind) {
    case 'media':
      return { media: id, ...(durationMs === undefined ? {} : { durationMs }) };
    case 'playlist':
      return { playlist: id };
    default:
      throw new RangeError(`"${value}" names neither a media file nor a playlist.`);
  }
}

/** The file whose picture represents a content: itself, or the first of a playlist, nested ones too; undefined if there is none. */
export function firstMedia(plan: Plan, content: Content): string | undefined {
  const what = knownContent(content);
  switch (what.kind) {
    case 'media':
      return what.id;
    case 'playlist':
      return firstOf(plan, plan.playlists.find((one) => one.id === what.id)?.items ?? []);
    default:
      return never(what);
  }
}

function firstOf(plan: Plan, items: readonly Item[]): string | undefined {
  for (const item of items) {
    const found = firstFile(plan, item);
    if (found !== undefined) return found;
  }
  return undefined;
}

/** The file whose picture represents an item: its own, or the first one inside. */
export function firstFile(plan: Plan, item: Item): string | undefined {
  const what = knownItem(item);
  switch (what.kind) {
    case 'media':
      return what.id;
    case 'playlist':
      return firstMedia(plan, { playlist: what.id });
    case 'collect':
      return itemFiles(plan, item)[0]?.id;
    default:
      return never(what);
  }
}

/** What a booking shows, by name. */
export function contentName(
  content: Content,
  plan: { playlists: readonly { id: string; name: string }[]; media: readonly { id: string; name: string }[] },
): string {
  const what = knownContent(content);
  switch (what.kind) {
    case 'playlist':
      return `playlist ${plan.playlists.find((one) => one.id === what.id)?.name ?? what.id}`;
    case 'media':
      return plan.media.find((one) => one.id === what.id)?.name ?? what.id;
    default:
      return never(what);
  }
}
