import {
  keyText,
  kindOf,
  linksOf,
  objectsOf,
  patchesBetween,
  referenceProblems,
  referencesOf,
  sharing,
  withObject,
  type ObjectKey,
  type Plan,
} from '../plan';
import { withPlaceTerms } from '../selector';

/** An object that must be published because a chosen one needs it, and the chosen one. */
export interface Along extends ObjectKey {
  readonly for: ObjectKey;
}

export interface Chosen {
  readonly plan: Plan;
  readonly along: readonly Along[];
}

/** An object of which two plans differ; null where a plan has none. */
interface Differing extends ObjectKey {
  readonly before: object | null;
  readonly after: object | null;
}

/**
 * One plan with some objects as another plan has them: the newest edition with a choice of the changes since, or a draft of which some are
 * taken back. What these need is drawn along: what they name and the first plan does not have, what still names an object that goes, who
 * has the name that one gets, and where the two do not go together all that they have to do with.
 */
export function chosenPlan(
  from: Plan,
  to: Plan,
  chosen: readonly ObjectKey[],
  {
    withPlaces = true,
  }: { /** Whether new sites and screens that a selector names go along. */ readonly withPlaces?: boolean } = {},
): Chosen {
  const differing = differingObjects(from, sharing(from, to));
  const taken = new Map<string, Differing>();
  const along: Along[] = [];
  const waiting: Differing[] = [];
  const take = (text: string, by?: ObjectKey) => {
    const one = differing.get(text);
    if (!one || taken.has(text)) return;
    taken.set(text, one);
    waiting.push(one);
    if (by) along.push({ kind: one.kind, id: one.id, for: { kind: by.kind, id: by.id } });
  };
  const usersOf = usersBy([...differing.values()], 'before');
  const owners = new Map(
    [...differing.values()].flatMap((one) => {
      const name = nameOf(one, one.before);
      return name === null ? [] : [[name, keyText(one)] as const];
    }),
  );
  const settle = () => {
    for (let one = waiting.pop(); one; one = waiting.pop()) {
      const needed = withPlaces ? targetsOf(one, one.after) : linksFrom(one, one.after);
      for (const target of needed) if (differing.get(target)?.before === null) take(target, one);
      if (one.after === null) for (const user of usersOf.get(keyText(one)) ?? []) take(user, one);
      const name = nameOf(one, one.after);
      const owner = name === null ? undefined : owners.get(name);
      if (owner !== undefined && owner !== keyText(one)) take(owner, one);
    }
  };
  for (const key of chosen) take(keyText(key));
  settle();
  // What can't stand together is all taken, or none of it: playlists that would contain each other, cuts of another film.
  const neighbours = neighboursOf([...differing.values()]);
  let plan = withTaken(from, taken);
  while (referenceProblems(plan).length > 0) {
    const before = taken.size;
    for (const one of [...taken.values()]) for (const other of neighbours.get(keyText(one)) ?? []) take(other, one);
    settle();
    if (taken.size === before) break;
    plan = withTaken(from, taken);
  }
  return { plan, along };
}

function differingObjects(from: Plan, to: Plan): Map<string, Differing> {
  const found = new Map<string, Differing>();
  const [before, after] = [objectsOf(from), objectsOf(to)];
  for (const { kind, id = '' } of patchesBetween(from, to)) {
    const text = keyText({ kind, id });
    found.set(text, { kind, id, before: before.get(text) ?? null, after: after.get(text) ?? null });
  }
  return found;
}

/** What a document refers to: it can't stand without it. */
const linksFrom = ({ kind }: ObjectKey, document: object | null): string[] =>
  document ? linksOf(document, referencesOf(kind)).map((link) => `${link.kind} ${link.id}`) : [];

/** The same, and the sites and screens of its selectors. */
function targetsOf(key: ObjectKey, document: object | null): string[] {
  const links = linksFrom(key, document);
  if (document)
    for (const text of selectorsOf(document))
      withPlaceTerms(text, (_, place, id) => {
        links.push(`${place} ${id}`);
        return undefined;
      });
  return links;
}

function selectorsOf(document: object): string[] {
  type Placed = { readonly where?: unknown; readonly touch?: { readonly where?: unknown } };
  const {
    where,
    items = [],
    zones = [],
  } = document as Placed & { items?: readonly Placed[]; zones?: readonly Placed[] };
  const within = [...items, ...zones].flatMap((one) => [one.where, one.touch?.where]);
  return [where, ...within].filter((text) => typeof text === 'string');
}

function usersBy(list: readonly Differing[], side: 'before' | 'after'): Map<string, string[]> {
  const users = new Map<string, string[]>();
  for (const one of list)
    for (const target of targetsOf(one, one[side])) users.set(target, [...(users.get(target) ?? []), keyText(one)]);
  return users;
}

/** What has to do with each other: by what one names, before or after. */
function neighboursOf(list: readonly Differing[]): Map<string, Set<string>> {
  const found = new Map<string, Set<string>>();
  const join = (a: string, b: string) => found.set(a, (found.get(a) ?? new Set()).add(b));
  for (const one of list)
    for (const target of [...targetsOf(one, one.before), ...targetsOf(one, one.after)]) {
      join(keyText(one), target);
      join(target, keyText(one));
    }
  return found;
}

/** A name that only one object may have, as people count names the same. */
function nameOf({ kind }: ObjectKey, document: object | null): string | null {
  const scope = document && kindOf(kind).nameScope(document as never);
  return scope === null ? null : `${kind} ${scope} ${(document as { name: string }).name.toLowerCase()}`;
}

function withTaken(from: Plan, taken: ReadonlyMap<string, Differing>): Plan {
  let plan = from;
  for (const { kind, id, after } of taken.values()) plan = withObject(plan, kind, id, after);
  return plan;
}
