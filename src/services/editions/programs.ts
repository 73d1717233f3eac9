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
