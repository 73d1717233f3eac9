import { createHash } from 'node:crypto';
import type { Transaction } from 'sequelize';
import { canonicalJson, type MadeProgram, type ProgramDocument } from '@/core/edition';
import { rows } from '@/database';

/** So many characters are sent to the database at once. */
const PORTION = 8_000_000;

/**
 * Writes programs by their hashes, in parts that they share, and which files each part needs. Those that are there stay as they are. Until
 * the transaction ends, none goes.
 */
export async function writePrograms(programs: ReadonlyMap<string, MadeProgram>, within: Transaction): Promise<void> {
  await rows('LOCK TABLE programs IN ROW EXCLUSIVE MODE', [], within);
  const added = await without('programs', programs, within);
  if (added.size === 0) return;
  const partsOf = partReader();
  const parts = new Map<string, Part>();
  const places: { program: string; place: number; part: string }[] = [];
  for (const [program, made] of added)
    for (const [place, part] of partsOf(made).entries()) {
      parts.set(part.hash, part);
      places.push({ program, place, part: part.hash });
    }
  const missing = await without('parts', parts, within);
  for (const portion of portions([...missing.values()]))
    await rows(
      'INSERT INTO parts (hash, text) SELECT * FROM unnest($1::text[], $2::text[]) ON CONFLICT DO NOTHING',
      [portion.map(({ hash }) => hash), portion.map(({ text }) => text)],
      within,
    );
  const needs = [...missing.values()].flatMap(({ hash, files }) => files.map((file) => [hash, file]));
  await rows(
    'INSERT INTO part_files (part, sha256) SELECT * FROM unnest($1::text[], $2::text[]) ON CONFLICT DO NOTHING',
    [needs.map(([part]) => part), needs.map(([, file]) => file)],
    within,
  );
  await rows(
    'INSERT INTO programs (hash) SELECT unnest($1::text[]) ON CONFLICT DO NOTHING',
    [[...added.keys()]],
    within,
  );
  await rows(
    `INSERT INTO program_parts (program, place, part)
     SELECT * FROM unnest($1::text[], $2::smallint[], $3::text[]) ON CONFLICT DO NOTHING`,
    [places.map(({ program }) => program), places.map(({ place }) => place), places.map(({ part }) => part)],
    within,
  );
}

/** What a table does not have yet, of things by their hashes. */
async function without<T>(
  table: 'programs' | 'parts',
  things: ReadonlyMap<string, T>,
  within: Transaction,
): Promise<Map<string, T>> {
  const there = await rows<{ hash: string }>(
    `SELECT hash FROM ${table} WHERE hash = ANY($1)`,
    [[...things.keys()]],
    within,
  );
  const known = new Set(there.map(({ hash }) => hash));
  // In order, so that two that write at once never wait for each other in a ring.
  return new Map([...things].filter(([hash]) => !known.has(hash)).sort(([a], [b]) => (a < b ? -1 : 1)));
}

/** A piece of programs' texts, and the files that it names. */
interface Part {
  readonly hash: string;
  readonly text: string;
  readonly files: readonly string[];
}

/** What knows the parts of programs by their texts. */
function partReader(): (program: MadeProgram) => Part[] {
  const known = new Map<string, Part>();
  return ({ parts, assets }) =>
    parts.map((text, place) => {
      let part = known.get(text);
      if (!part) {
        const files = place === 0 ? [...new Set(Object.values(assets).map((asset) => asset.sha256))] : [];
        known.set(text, (part = { hash: createHash('sha256').update(text).digest('hex'), text, files }));
      }
      return part;
    });
}

function* portions(parts: readonly Part[]): Generator<Part[]> {
  let portion: Part[] = [];
  let size = 0;
  for (const part of parts) {
    portion.push(part);
    if ((size += part.text.length) < PORTION) continue;
    yield portion;
    [portion, size] = [[], 0];
  }
  if (portion.length > 0) yield portion;
}

/** Programs by their hashes, as they were written; those that are not there are left out. */
export async function programsBy(hashes: readonly string[], within?: Transaction): Promise<Map<string, MadeProgram>> {
  if (hashes.length === 0) return new Map();
  const places = await rows<{ program: string; part: string }>(
    'SELECT program, part FROM program_parts WHERE program = ANY($1) ORDER BY program, place',
    [hashes],
    within,
  );
  const texts = await rows<{ hash: string; text: string }>(
    'SELECT hash, text FROM parts WHERE hash = ANY($1)',
    [[...new Set(places.map(({ part }) => part))]],
    within,
  );
  const textOf = new Map(texts.map(({ hash, text }) => [hash, text]));
  const found = new Map<string, string[]>();
  for (const { program, part } of places) found.set(program, [...(found.get(program) ?? []), textOf.get(part) ?? '']);
  const needs = needsReader();
  return new Map([...found].map(([hash, parts]) => [hash, needs(parts)]));
}

/** What reads what programs need from the beginning of their texts. Those that were written in one piece are cut behind it. */
function needsReader(): (parts: readonly string[]) => MadeProgram {
  const known = new Map<string, ProgramDocument['assets']>();
  return (parts) => {
    const [first = '', ...rest] = parts;
    if (rest.length === 0) {
      const { assets } = JSON.parse(first) as ProgramDocument;
      const begin = `{"assets":${canonicalJson(assets)}`;
      return { parts: [begin, first.slice(begin.length)], assets };
    }
    const assets = known.get(first) ?? (JSON.parse(`${first}}`) as ProgramDocument).assets;
    known.set(first, assets);
    return { parts, assets };
  };
}

/** Which files programs need, by the programs' hashes. */
export async function filesOf(hashes: readonly string[]): Promise<Map<string, Set<string>>> {
  if (hashes.length === 0) return new Map();
  const found = await rows<{ hash: string; files: string[] }>(
    'SELECT hash, array_agg(sha256) AS files FROM program_files WHERE hash = ANY($1) GROUP BY hash',
    [hashes],
  );
  return new Map(found.map(({ hash, files }) => [hash, new Set(files)]));
}
