import { evaluate, screenTerms, type Selector } from './selector';

type Placed = Parameters<typeof screenTerms>[0];

/** Screens with their sites, as a plan holds them. */
interface ScreensAtSites<S extends Placed> {
  readonly screens: readonly S[];
  readonly sites: readonly { readonly id: string; readonly tags?: readonly string[] | undefined }[];
}

/** Which screens bear each term, by their place in the list. */
type Register = ReadonlyMap<string, readonly number[]>;

/** Kept for as long as the two lists are: plans are never altered in place. */
const registers = new WeakMap<readonly object[], { readonly sites: readonly object[]; readonly register: Register }>();

function registerOf({ screens, sites }: ScreensAtSites<Placed>): Register {
  const known = registers.get(screens);
  if (known?.sites === sites) return known.register;
  const siteTags = new Map(sites.map((site) => [site.id, site.tags]));
  const register = new Map<string, number[]>();
  screens.forEach((screen, place) => {
    for (const term of screenTerms(screen, siteTags.get(screen.site))) {
      const places = register.get(term);
      if (places) places.push(place);
      else register.set(term, [place]);
    }
  });
  registers.set(screens, { sites, register });
  return register;
}

/** One byte for each screen: 1 where the selector matches. */
const marks = (selector: Selector, register: Register, count: number): Uint8Array =>
  evaluate<Uint8Array>(selector, {
    all: () => new Uint8Array(count).fill(1),
    term: (term) => {
      const found = new Uint8Array(count);
      for (const place of register.get(term) ?? []) found[place] = 1;
      return found;
    },
    not: (of) => of.map((mark) => 1 - mark),
    and: (left, right) => left.map((mark, i) => mark & (right[i] ?? 0)),
    or: (left, right) => left.map((mark, i) => mark | (right[i] ?? 0)),
  });

/**
 * The screens that a selector matches, in their order: the same that `matches` finds one by one. Whole lists are asked about
 * again and again, so it is looked up once which screens bear a term.
 */
export function screensMatching<S extends Placed>(plan: ScreensAtSites<S>, selector: Selector): S[] {
  const found = marks(selector, registerOf(plan), plan.screens.length);
  return plan.screens.filter((_, place) => found[place] === 1);
}
