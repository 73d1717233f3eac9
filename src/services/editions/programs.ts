import type { Transaction } from 'sequelize';
import type { ProgramDocument } from '@/core';
import { ProgramRow, rows } from '@/database';

/** Writes programs, canonical texts by their hashes, and which files each of them needs. Those that are there stay as they are. */
export async function writePrograms(programs: ReadonlyMap<string, string>, within: Transaction): Promise<void> {
  const list = [...programs];
  await ProgramRow.bulkCreate(
    list.map(([hash, document]) => ({ hash, document })),
    { ignoreDuplicates: true, transaction: within },
  );
  const files = list.flatMap(([hash, text]) =>
    [...new Set(Object.values((JSON.parse(text) as ProgramDocument).assets).map((asset) => asset.sha256))].map(
      (sha256) => ({ hash, sha256 }),
    ),
  );
  await rows(
    `INSERT INTO program_files (hash, sha256) SELECT * FROM jsonb_to_recordset($1::jsonb) AS x(hash text, sha256 text) ON CONFLICT DO NOTHING`,
    [JSON.stringify(files)],
    within,
  );
}

/** The canonical texts of programs by their hashes; those that are not there are left out. */
export async function textsOf(hashes: readonly string[], within?: Transaction): Promise<Map<string, string>> {
  if (hashes.length === 0) return new Map();
  const found = await rows<{ hash: string; document: string }>(
    'SELECT hash, document FROM programs WHERE hash = ANY($1)',
    [hashes],
    within,
  );
  return new Map(found.map(({ hash, document }) => [hash, document]));
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
