import type { MediaKind, MediaSearchText, WantedSize } from '@/core/plan';
import { evaluate, parseSelector, selectorOf } from '@/core/selector';

/** Turns a search for files into conditions of PostgreSQL over `media_index m`. */

/** Two shapes are alike where their sides differ by less than one in a hundred. */
const ALIKE = 0.01;

/** Values of a statement, numbered as they are used. */
export class Binds {
  readonly values: unknown[] = [];
  add(value: unknown): string {
    this.values.push(value);
    return `$${this.values.length}`;
  }
}

/** A text as a pattern that means itself. */
const literal = (text: string) => text.replace(/[\\%_]/g, '\\$&');

/** That a file bears what a selector names. */
function selectorSql(selector: ReturnType<typeof selectorOf>, binds: Binds): string {
  return evaluate<string>(selector, {
    all: () => 'true',
    term: (term) => `m.terms @> ARRAY[${binds.add(term)}]::text[]`,
    not: (of) => `NOT (${of})`,
    and: (left, right) => `(${left} AND ${right})`,
    or: (left, right) => `(${left} OR ${right})`,
  });
}

/** That a file is meant by a text, whatever its accents: each of its words is part of the name or begins a tag; or it is a selector that the file bears. */
function textSql(text: string, binds: Binds): string {
  if (text === '') return 'true';
  const words = text.split(/\s+/).map((word) => {
    const pattern = `folded(${binds.add(literal(word))})`;
    // The first part alone needs the rows: the index knows all words of a file.
    return `(m.words LIKE '%' || ${pattern} || '%' AND (m.name LIKE '%' || ${pattern} || '%' OR m.words LIKE E'%\\n' || ${pattern} || '%'))`;
  });
  const selector = parseSelector(text);
  return `((${words.join(' AND ')})${selector.ok ? ` OR ${selectorSql(selector.value, binds)}` : ''})`;
}

/** That a file fits a size exactly, either way round. */
function exactSql({ width, height }: WantedSize, binds: Binds): string {
  const [w, h] = [binds.add(width), binds.add(height)];
  return `((m.width = ${w} AND m.height = ${h}) OR (m.width = ${h} AND m.height = ${w}))`;
}

/** That a file has the shape of a size, either way round. */
function alikeSql({ width, height }: WantedSize, binds: Binds): string {
  const ratio = binds.add(Math.max(width, height) / Math.min(width, height));
  return `abs(greatest(m.width, m.height)::float8 / least(m.width, m.height) / ${ratio} - 1) < ${ALIKE}`;
}

/** What is asked for besides what is typed. */
export interface Filters {
  readonly kind: MediaKind | null;
  /** Films that have sound, and sounds. */
  readonly audible: boolean;
  readonly unused: boolean;
  /** Whose last day is within a week. */
  readonly ending: boolean;
  /** What is archived in place of what is not. */
  readonly archived: boolean;
  /** Of these files alone, by their ids; null for all. */
  readonly among: readonly string[] | null;
}

/** The condition of a search in a network. `rules` are those by which its playlists collect files; `today` is a date. */
export function searchSql(
  networkId: string,
  { text, size }: MediaSearchText,
  { kind, audible, unused, ending, archived, among }: Filters,
  rules: readonly string[],
  today: string,
  binds: Binds,
): string {
  const parts = [
    `m.network_id = ${binds.add(networkId)}`,
    archived ? 'm.archived' : 'NOT m.archived',
    textSql(text, binds),
  ];
  if (size) parts.push(`(${exactSql(size, binds)} OR ${alikeSql(size, binds)})`);
  if (kind) parts.push(`m.kind = ${binds.add(kind)}`);
  if (audible) parts.push('m.audible');
  if (among) parts.push(`m.slug = ANY(${binds.add(among)}::text[])`);
  if (ending) parts.push(endingSql(today, binds));
  if (unused) parts.push(unusedSql(networkId, rules, binds));
  return parts.join(' AND ');
}

export function endingSql(today: string, binds: Binds): string {
  return `m.last_day BETWEEN ${binds.add(today)}::date AND ${binds.add(today)}::date + 7`;
}

/** That nothing names a file, and no rule collects it. */
export function unusedSql(networkId: string, rules: readonly string[], binds: Binds): string {
  const named = `SELECT l.to_slug FROM plan_links l WHERE l.network_id = ${binds.add(networkId)} AND l.to_kind = 'media'`;
  return [`m.slug NOT IN (${named})`, ...rules.map((rule) => `NOT (${selectorSql(selectorOf(rule), binds)})`)].join(
    ' AND ',
  );
}

/**
 * What comes first: the size itself, then what is called so, then what begins so, then all others. Conditions of which every file meets
 * one, in that order.
 */
export function ranksSql({ text, size }: MediaSearchText, binds: Binds): string[] {
  const sizes = size ? [exactSql(size, binds), `NOT ${exactSql(size, binds)}`] : ['true'];
  const names = text === '' ? ['true'] : namesSql(text, binds);
  return sizes.flatMap((ofSize) => names.map((ofName) => `${ofSize} AND ${ofName}`));
}

function namesSql(text: string, binds: Binds): string[] {
  const named = `m.name = folded(${binds.add(text)})`;
  const begins = `m.name LIKE folded(${binds.add(literal(text))}) || '%'`;
  return [named, `${begins} AND NOT (${named})`, `NOT (${begins})`];
}

/** Of alike ones the newest come first. */
export const NEWEST_FIRST = 'm.added DESC, m.slug';
