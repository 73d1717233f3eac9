import { MOST_ENTRIES } from './kinds/playlist';
import { linksOf } from './references';
import { kindOf, referencesOf, type Kind } from './registry';

/** What contains others of its kind, as playlists do: how long it comes to be, how deep, and whether it contains itself. */

/** What one object contains: entries of its own, and others of its kind, each as often as it occurs. */
export interface Holds {
  readonly entries: number;
  readonly nested: readonly string[];
}

export interface Nesting {
  /** Entries including nested ones, each as often as it occurs; for objects without a circle. */
  readonly lengths: ReadonlyMap<string, number>;
  /** How many levels are nested: 1 for an object that contains no other. */
  readonly depths: ReadonlyMap<string, number>;
  /** Those that contain themselves, and those that contain one of them. */
  readonly circular: ReadonlySet<string>;
}

/** How deep playlists may be nested. */
const MOST_DEPTH = 10;

/** Works out from the innermost outwards, each once: as fast for what comes to be millions long. */
export function nestingOf(objects: ReadonlyMap<string, Holds>): Nesting {
  const holders = new Map<string, string[]>();
  const waitsFor = new Map<string, number>();
  const ready: string[] = [];
  for (const [id, { nested }] of objects) {
    const known = nested.filter((one) => objects.has(one));
    for (const one of known) holders.set(one, [...(holders.get(one) ?? []), id]);
    waitsFor.set(id, known.length);
    if (known.length === 0) ready.push(id);
  }
  const lengths = new Map<string, number>();
  const depths = new Map<string, number>();
  for (let id = ready.pop(); id !== undefined; id = ready.pop()) {
    const { entries, nested } = objects.get(id) ?? { entries: 0, nested: [] };
    lengths.set(
      id,
      nested.reduce((sum, one) => sum + (lengths.get(one) ?? 0), entries),
    );
    depths.set(id, 1 + nested.reduce((deepest, one) => Math.max(deepest, depths.get(one) ?? 0), 0));
    for (const holder of holders.get(id) ?? []) {
      const left = (waitsFor.get(holder) ?? 0) - 1;
      waitsFor.set(holder, left);
      if (left === 0) ready.push(holder);
    }
  }
  return { lengths, depths, circular: new Set([...objects.keys()].filter((id) => !lengths.has(id))) };
}

/** A reason why an object can't be kept as it is, and where in it. */
export interface NestingProblem {
  readonly id: string;
  readonly path: readonly (string | number)[];
  readonly message: string;
}

/** What is wrong with how objects of one kind contain each other. Reads documents that are not known to be well-formed. */
export function nestingProblems(kind: Kind, documents: ReadonlyMap<string, unknown>): NestingProblem[] {
  // Items of a list are nested; references beside the list, like a playlist's music, are not.
  const own = referencesOf(kind).filter(({ kind: of, path }) => of === kind && path.includes('*'));
  if (own.length === 0) return [];
  const links = new Map([...documents].map(([id, document]) => [id, linksOf(document, own)]));
  const nested = new Map([...links].map(([id, list]) => [id, list.map((link) => link.id)]));
  const lists = [...new Set(own.map(({ path }) => String(path[0])))];
  const objects = new Map(
    [...nested].map(([id, list]): [string, Holds] => [
      id,
      { nested: list, entries: lists.reduce((sum, name) => sum + lengthOf(documents.get(id), name), -list.length) },
    ]),
  );
  const nesting = nestingOf(objects);
  return [...documents.keys()].flatMap((id): NestingProblem[] => {
    if (nesting.circular.has(id))
      return (links.get(id) ?? []).flatMap((link) =>
        nesting.circular.has(link.id) && leadsTo(nested, link.id, id)
          ? [{ id, path: link.path, message: `This ${kindOf(kind).noun} contains itself. Remove the item.` }]
          : [],
      );
    const message = tooMuch(id, nesting);
    return message === null ? [] : [{ id, path: lists, message }];
  });
}

function lengthOf(document: unknown, list: string): number {
  const value = (document as Record<string, unknown> | null)?.[list];
  return Array.isArray(value) ? value.length : 0;
}

function tooMuch(id: string, { lengths, depths }: Nesting): string | null {
  if ((lengths.get(id) ?? 0) > MOST_ENTRIES)
    return `With nested playlists this has more than ${MOST_ENTRIES} entries, where a collecting rule counts as one. Nest less, or collect files by a tag.`;
  if ((depths.get(id) ?? 0) > MOST_DEPTH)
    return `Playlists can be nested ${MOST_DEPTH} levels deep at most. Take one level out.`;
  return null;
}

/** Whether following `nested` from one id leads to another. */
function leadsTo(nested: ReadonlyMap<string, readonly string[]>, from: string, target: string): boolean {
  const seen = new Set<string>();
  const pending = [from];
  for (let id = pending.pop(); id !== undefined; id = pending.pop()) {
    if (id === target) return true;
    if (seen.has(id)) continue;
    seen.add(id);
    pending.push(...(nested.get(id) ?? []));
  }
  return false;
}
