import type * as z from 'zod';
import { done, refused, type Problem, type Result } from '../refusal';
import { clipProblems } from './clips';
import type { Media } from './kinds/media';
import { layoutProblems } from './layouts-within';
import { nestingProblems } from './nesting';
import { linksOf } from './references';
import { ALL_KINDS, LISTED_KINDS, collectionOf, isKind, kindOf, referencesOf, type Kind } from './registry';
import { planSchema, type Plan } from './schema';

/** Writes a path of keys as an RFC 6901 JSON Pointer. */
export function pointer(path: readonly PropertyKey[]): string {
  return path.map((key) => `/${String(key).replace(/~/g, '~0').replace(/\//g, '~1')}`).join('');
}

/** At most this many problems are reported; with more, correct these first. */
export const MOST_PROBLEMS = 100;

/** Zod's issues as problems: one each unknown field, and plain words where Zod's own say little. The first `MOST_PROBLEMS` of them. */
export function problemsOf(error: z.ZodError): Problem[] {
  const problems: Problem[] = [];
  for (const issue of error.issues) {
    const room = MOST_PROBLEMS - problems.length;
    if (room <= 0) break;
    if (issue.code === 'unrecognized_keys')
      for (const key of issue.keys.slice(0, room))
        problems.push({ path: pointer([...issue.path, key]), message: `“${key}” is unknown here. Remove it.` });
    else
      problems.push({ path: pointer(issue.path), message: saysLittle(issue.message) ? inWords(issue) : issue.message });
  }
  return problems;
}

/** Whether a message is Zod's own, about its types, and no sentence of ours. */
const saysLittle = (message: string) => /^(Invalid input|Invalid option|Too big|Too small)\b/.test(message);

const NAMED: Readonly<Record<string, string>> = {
  ...{ string: 'a text', number: 'a number', int: 'a whole number', boolean: 'true or false' },
  ...{ array: 'a list', object: 'an object', record: 'an object', tuple: 'a list' },
};

function inWords(issue: z.core.$ZodIssue): string {
  switch (issue.code) {
    case 'invalid_type': {
      const wanted = NAMED[issue.expected] ?? issue.expected;
      return issue.message.endsWith('received undefined')
        ? `This is missing. Give ${wanted}.`
        : `This must be ${wanted}.`;
    }
    case 'invalid_value':
      return `This must be ${issue.values.map((one) => JSON.stringify(one)).join(' or ')}.`;
    case 'too_big':
      return ofSize(issue.origin, 'at most', issue.maximum);
    case 'too_small':
      return ofSize(issue.origin, 'at least', issue.minimum);
    case 'invalid_union':
      return 'This isn’t in any known form. Check its fields.';
    default:
      return issue.message;
  }
}

const ofSize = (of: string, measure: string, bound: number | bigint) =>
  of === 'string'
    ? `This has ${measure} ${bound} characters.`
    : of === 'array'
      ? `This list has ${measure} ${bound} ${Number(bound) === 1 ? 'entry' : 'entries'}.`
      : `This is ${measure} ${bound}.`;

/** One object's document, checked; all of its problems at once where it is not valid. */
export function readDocument(kind: Kind, document: object): Result<object> {
  const read = kindOf(kind).schema.safeParse(document);
  return read.success ? done(read.data) : refused(problemsOf(read.error));
}

/**
 * Reads a plan document. Returns the plan, or all of its problems at once: wrong fields, dangling ids, ids given twice,
 * playlists that contain themselves. Nothing is half read.
 */
export function readPlan(written: unknown): Result<Plan> {
  const document = withContentOfOverlays(written);
  const read = planSchema.safeParse(document);
  const problems = [...(read.success ? [] : problemsOf(read.error)), ...referenceProblems(document)].slice(
    0,
    MOST_PROBLEMS,
  );
  return read.success && problems.length === 0
    ? done(read.data)
    : refused(problems, 'This plan file has mistakes, so nothing was read.');
}

/** A booking may name its layout in its `overlay` alone: `{"overlay": {"layout": "quay-line"}}`. */
function withContentOfOverlays(document: unknown): unknown {
  if (!isObject(document) || !Array.isArray(document.bookings)) return document;
  const bookings = (document.bookings as unknown[]).map((booking) => {
    if (!isObject(booking) || booking.content !== undefined || !isObject(booking.overlay)) return booking;
    const { layout, ...overlay } = booking.overlay;
    return layout === undefined ? booking : { ...booking, content: { layout }, overlay };
  });
  return { ...document, bookings };
}

type Loose = Record<string, unknown>;

const isObject = (value: unknown): value is Loose =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const listOf = (value: unknown): unknown[] => (Array.isArray(value) ? value : []);

/** Reports that an object doesn't exist, at the place that names it. */
export const danglingMessage = (kind: string, id: string) =>
  `There is no ${isKind(kind) ? kindOf(kind).noun : kind} “${id}”. Name one that is in the plan.`;

/**
 * The problems that only show between parts of a plan. Reads the document before it is known to be well-formed, so that
 * they are reported together with the others; what is malformed is left to the schema.
 */
export function referenceProblems(document: unknown): Problem[] {
  if (!isObject(document)) return [];
  const problems: Problem[] = [];
  const report = (path: readonly PropertyKey[], message: string) => {
    if (problems.length < MOST_PROBLEMS) problems.push({ path: pointer(path), message });
  };
  const ids = new Map<string, Set<string>>();
  for (const kind of LISTED_KINDS) {
    const seen = new Set<string>();
    ids.set(kind, seen);
    listOf(document[collectionOf(kind)]).forEach((entry, i) => {
      if (!isObject(entry) || typeof entry.id !== 'string') return;
      if (seen.has(entry.id))
        report(
          [collectionOf(kind), i, 'id'],
          `Another entry already has the id “${entry.id}”. Each entry needs its own id.`,
        );
      seen.add(entry.id);
    });
  }
  for (const kind of ALL_KINDS)
    for (const [place, one] of placesOf(document, kind))
      for (const link of linksOf(one, referencesOf(kind)))
        if (!ids.get(link.kind)?.has(link.id)) report([...place, ...link.path], danglingMessage(link.kind, link.id));
  for (const kind of LISTED_KINDS) {
    const places = new Map(
      placesOf(document, kind).flatMap(([place, one]) =>
        isObject(one) && typeof one.id === 'string' ? [[one.id, { place, one }] as const] : [],
      ),
    );
    const documents = new Map([...places].map(([id, { one }]) => [id, one]));
    for (const { id, path, message } of nestingProblems(kind, documents))
      report([...(places.get(id)?.place ?? []), ...path], message);
  }
  for (const { path, message } of layoutProblems(listOf(document.layouts), listOf(document.playlists)))
    report(['layouts', ...path], message);
  const files = new Map(
    listOf(document.media).flatMap((one) => (isObject(one) ? [[one.id, one as unknown as Media]] : [])),
  );
  for (const [place, one] of placesOf(document, 'playlist'))
    for (const { path, message } of clipProblems(one, (id) => files.get(id))) report([...place, ...path], message);
  return problems;
}

function placesOf(document: Loose, kind: Kind): (readonly [readonly PropertyKey[], unknown])[] {
  if (kind === 'network') return [[['network'], document.network]];
  const collection = collectionOf(kind);
  return listOf(document[collection]).map((one, i) => [[collection, i], one] as const);
}
