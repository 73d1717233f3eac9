import { resolve } from 'node:path';

/** What the environment decides. Read once, when first asked for. */
export interface Config {
  readonly databaseUrl: string;
  /** Folder of the media store, uploads under way and the private PostgreSQL cluster. */
  readonly dataFolder: string;
  /** Largest upload, in bytes. */
  readonly uploadLimit: number;
  /** The priority of programs that prepare files, from 0 (as others) to 19 (last): publishing goes before them (`bin/think.ts`). */
  readonly filePriority: number;
  /** Whether this server runs the sample network for show: only then its people come in by the passwords that everybody can read. */
  readonly demo: boolean;
}

export function config(): Config {
  const databaseUrl = process.env.DATABASE_URL;
  if (!databaseUrl)
    throw new Error('DATABASE_URL is not set: start with `npm run demo` or `npx lanternpost start`, which set it.');
  return {
    databaseUrl,
    dataFolder: resolve(/* turbopackIgnore: true */ process.env.LANTERNPOST_DATA ?? 'data'),
    uploadLimit: Number(process.env.LANTERNPOST_UPLOAD_LIMIT ?? 4 * 2 ** 30),
    filePriority: readPriority(process.env.LANTERNPOST_FILE_PRIORITY ?? '15'),
    demo: process.env.LANTERNPOST_DEMO === '1',
  };
}

function readPriority(text: string): number {
  if (!/^1?\d$/.test(text))
    throw new Error(`LANTERNPOST_FILE_PRIORITY is “${text}”. Write a whole number from 0 to 19, or leave it out.`);
  return Number(text);
}
