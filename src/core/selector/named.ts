import { misread, done, type Result } from '../refusal';

/**
 * A selector names sites and single screens by their ids (`site:skerrow`). People write and read their names instead, in
 * quotes: `"Skerrow Pier"`, and a screen behind its site, `"Skerrow Pier · Gangway"`.
 */

interface Places {
  readonly sites: readonly { readonly id: string; readonly name: string }[];
  readonly screens: readonly { readonly id: string; readonly name: string; readonly site: string }[];
}

/** What a name means: terms of a selector, more than one where several screens are called so. */
type Meant = ReadonlyMap<string, readonly string[]>;

interface NamesOfPlaces {
  readonly meant: Meant;
  /** The name of each term. */
  readonly called: ReadonlyMap<string, string>;
}

/** The same name, however it is written: marks between its words and letter case make no difference. */
const plain = (name: string) =>
  name
    .normalize('NFC')
    .toLowerCase()
    .replace(/["“”„·,/–-]+/gu, ' ')
    .replace(/\s+/gu, ' ')
    .trim();

const kept = new WeakMap<readonly object[], { readonly sites: readonly object[]; readonly names: NamesOfPlaces }>();

function namesOf({ sites, screens }: Places): NamesOfPlaces {
  const known = kept.get(screens);
  if (known?.sites === sites) return known.names;
  const meant = new Map<string, string[]>();
  const called = new Map<string, string>();
  const add = (name: string, term: string) => {
    const list = meant.get(plain(name));
    if (list) list.push(term);
    else meant.set(plain(name), [term]);
  };
  const siteNames = new Map(sites.map(({ id, name }) => [id, name]));
  for (const { id, name } of sites) {
    add(name, `site:${id}`);
    called.set(`site:${id}`, name);
  }
  const alone: [string, string][] = [];
  for (const { id, name, site } of screens) {
    const full = `${siteNames.get(site) ?? ''} · ${name}`;
    add(full, `screen:${id}`);
    called.set(`screen:${id}`, full);
    alone.push([name, `screen:${id}`]);
  }
  // A name that means something in full means no single screens besides.
  const full = new Set(meant.keys());
  for (const [name, term] of alone) if (!full.has(plain(name))) add(name, term);
  const names = { meant, called };
  kept.set(screens, { sites, names });
  return names;
}

const QUOTED = /["“”„]([^"“”„]*)(["“”„]?)/gu;
/** Terms that name a site or a screen by its id. */
const PLACE_TERM = /(?<![\p{L}\p{Nd}_:-])(site|screen):([\p{L}\p{Nd}][\p{L}\p{Nd}_-]*)/giu;

/** A selector's text, each term that names a site or a screen written otherwise. `called` gets the term in small letters, its kind and id. */
export const withPlaceTerms = (
  text: string,
  called: (term: string, kind: string, id: string) => string | undefined,
): string =>
  text.replace(
    PLACE_TERM,
    (term, kind: string, id: string) => called(term.toLowerCase(), kind.toLowerCase(), id.toLowerCase()) ?? term,
  );

/** A name as a selector's text has it. */
export const quoted = (name: string): string => `"${name.replace(/["“”„]/gu, '')}"`;

/** A selector's text with sites and screens by name. Those without a unique name keep their ids; reading it again gives the same. */
export function selectorWithNames(text: string, places: Places): string {
  const { meant, called } = namesOf(places);
  return withPlaceTerms(text, (term) => {
    const name = called.get(term);
    return name !== undefined && meant.get(plain(name))?.length === 1 ? quoted(name) : undefined;
  });
}

/** Turns a selector as people write it into one with ids. A name that doesn't exist is an error, with its offset. */
export function readSelectorNames(text: string, places: Places): Result<string> {
  const { meant } = namesOf(places);
  let wrong: ReturnType<typeof misread> | null = null;
  const read = text.replace(QUOTED, (all, name: string, end: string, at: number) => {
    const terms = meant.get(plain(name));
    if (end === '') wrong ??= misread('A name starts with " but has no closing ". Add one.', at);
    else if (!terms) wrong ??= misread(`No site and no screen is called “${name.trim()}”.`, at);
    else return terms.length === 1 ? (terms[0] ?? '') : `(${terms.join(' or ')})`;
    return all;
  });
  return wrong ?? done(read);
}
