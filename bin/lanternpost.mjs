#!/usr/bin/env node
// The command line: reads TypeScript as it stands, wherever it is called from.
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

process.env.TSX_TSCONFIG_PATH ??= join(dirname(fileURLToPath(import.meta.url)), '..', 'tsconfig.json');
const { register } = await import('tsx/esm/api');
register();
await import('./main.ts');
