import { itemFiles } from '@/core/forecast';
import {
  CONTENTS,
  contentFrom,
  isContentKind,
  knownContent,
  knownItem,
  objectIn,
  type Content,
  type Item,
  type Plan,
} from '@/core/plan';
import { never } from '@/core/refusal';

/** A content as a form's value: `playlist:house`, `media:line-flag`, or empty for none. */
export function contentValue(content: Content | undefined): string {
  if (!content) return '';
  const { kind, id } = knownContent(content);
  return `${kind}:${id}`;
}

/** The content of such a value, undefined where it names none; `durationMs` is for what has none of its own. */
export function contentOf(value: string, durationMs?: number): Content | undefined {
  const [kind = '', id] = value.split(':');
  if (!id || !isContentKind(kind)) return undefined;
  return contentFrom({ kind, id, durationMs });
}

/** The file whose picture represents a content: itself, or the first of a playlist, nested ones too; undefined if there is none. */
export function firstMedia(plan: Plan, content: Content): string | undefined {
  const what = knownContent(content);
  switch (what.kind) {
    case 'media':
      return what.id;
    case 'playlist':
      return firstOf(plan, plan.playlists.find((one) => one.id === what.id)?.items ?? []);
    case 'layout':
      return firstInZones(plan, what.id);
    case 'bulletin':
    case 'input':
      return undefined;
    default:
      return never(what);
  }
}

/** The first picture in the largest zone that has one. */
function firstInZones(plan: Plan, layout: string): string | undefined {
  const zones = [...(objectIn(plan, 'layout', layout)?.zones ?? [])];
  zones.sort((a, b) => b.width * b.height - a.width * a.height);
  for (const { content } of zones) {
    const found = content && firstMedia(plan, content);
    if (found !== undefined) return found;
  }
  return undefined;
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
    case 'layout':
    case 'bulletin':
    case 'input':
      return firstMedia(plan, contentFrom(what));
    case 'collect':
      return itemFiles(plan, item)[0]?.id;
    default:
      return never(what);
  }
}

/** An input as the profiles name it; several may have one of this id. */
const inputIn = (plan: Plan, id: string): { readonly name: string } | null =>
  plan.profiles.flatMap(({ inputs = [] }) => inputs).find((one) => one.id === id) ?? { name: id };

/** The object of a plan that a content names. */
export function contentObject(plan: Plan, content: Content): { readonly name: string } | null {
  const { kind, id } = knownContent(content);
  return kind === 'input' ? inputIn(plan, id) : objectIn(plan, kind, id);
}

/** What a booking shows, by name. Except for a file, its kind comes first: “playlist House”. */
export function contentName(content: Content, plan: Plan): string {
  const { kind, id } = knownContent(content);
  const name = contentObject(plan, content)?.name ?? id;
  return kind === 'media' ? name : `${CONTENTS[kind].called} ${name}`;
}
