import { readFileSync } from 'node:fs';
import { join } from 'node:path';

/** The rows of a JSON Lines file of the core (`when/rule-cases.jsonl`). A row that says what the file is about is left out. */
export const readRows = <T>(path: string): T[] =>
  readFileSync(join(__dirname, '..', path), 'utf8')
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as T & { readonly about?: string })
    .filter(({ about }) => about === undefined);
