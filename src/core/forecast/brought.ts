import type { Plan } from '../plan/schema';
import { matches, screenTerms, selectorOf } from '../selector';
import { Flattener } from './flatten';

/** A booking that a tag brings to a screen. */
export interface BroughtBooking {
  readonly booking: string;
  /** Whether all of its files are for other screens, so that it never shows here. */
  readonly hasNothing: boolean;
}

/** What a screen's tag does: the bookings that would not reach it without this tag. */
export interface Brought {
  readonly tag: string;
  /** Whether its site has it, with the screen itself or alone. */
  readonly isOfSite: boolean;
  readonly bookings: readonly BroughtBooking[];
}

/** What each tag of a screen brings to it, its own first, then its site's. Throws RangeError for an unknown screen. */
export function broughtTo(plan: Plan, screenId: string): Brought[] {
  const screen = plan.screens.find(({ id }) => id === screenId);
  const site = plan.sites.find(({ id }) => id === screen?.site);
  if (!screen || !site) throw new RangeError(`The plan has no screen “${screenId}”.`);
  const terms = screenTerms(screen, site.tags);
  const flattener = new Flattener(plan);
  const reaching = plan.bookings.filter(({ onHold, where }) => !onHold && matches(selectorOf(where), terms));
  const siteTags = new Set(site.tags?.map((tag) => tag.toLowerCase()));
  const tags = new Set([...(screen.tags ?? []), ...(site.tags ?? [])].map((tag) => tag.toLowerCase()));
  return [...tags].map((tag) => {
    const without = new Set([...terms].filter((term) => term !== tag));
    return {
      ...{ tag, isOfSite: siteTags.has(tag) },
      bookings: reaching
        .filter(({ where }) => !matches(selectorOf(where), without))
        .map(({ id, content }) => ({
          booking: id,
          hasNothing: flattener.flat(content, terms).loop.length === 0,
        })),
    };
  });
}
