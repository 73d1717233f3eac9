import { nearestOf } from '@/core/nearest';
import { countTags, type Plan } from '@/core/plan';
import { parseSelector } from '@/core/selector';

/** Terms with a meaning of their own, which aren't tags. */
const OWN_MEANING = /^(?:screen|site|is):/i;

/** A tag of a selector that no screen and no site has, and what may have been meant. */
export interface UnknownTag {
  readonly tag: string;
  /** The most similar tag that there is; null for none. */
  readonly nearest: string | null;
}

/** The tags of a selector that no screen has: beside known ones they are easily overlooked. Empty if the text isn't a selector. */
export function unknownTags(plan: Plan, selector: string): UnknownTag[] {
  const read = parseSelector(selector);
  if (!read.ok) return [];
  const known = countTags([...plan.sites, ...plan.screens]).map(({ tag }) => tag);
  const terms = read.value.flatMap((step) => (step.kind === 'term' ? [step.term.toLowerCase()] : []));
  return [...new Set(terms)]
    .filter((term) => !OWN_MEANING.test(term) && !known.includes(term))
    .map((tag) => ({ tag, nearest: nearestOf(tag, known) }));
}

/** The same as a sentence; null where all are known. */
export function unknownTagsText(plan: Plan, selector: string): string | null {
  const unknown = unknownTags(plan, selector);
  if (unknown.length === 0) return null;
  return unknown
    .map(
      ({ tag, nearest }) => `No screen has the tag “${tag}”.${nearest === null ? '' : ` Did you mean “${nearest}”?`}`,
    )
    .join(' ');
}
