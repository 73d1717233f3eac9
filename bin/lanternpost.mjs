#!/usr/bin/env node
// The command line: as it was built, or where the sources are newer than that, the TypeScript as it stands.
import { existsSync, readdirSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
process.env.LANTERNPOST_BIN ??= dirname(fileURLToPath(import.meta.url));
const built = join(root, '.cli/main.mjs');

function newest(folder) {
  let latest = 0;
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    latest = Math.max(latest, entry.isDirectory() ? newest(path) : statSync(path).mtimeMs);
  }
  return latest;
}

const sources = [
  'src/core',
  'src/database',
  'src/services',
  'src/protocol',
  'src/jobs',
  'src/player',
  'src/fleet',
  'src/bridge',
  'src/demo',
  'bin',
];
if (existsSync(built) && sources.every((folder) => newest(join(root, folder)) <= statSync(built).mtimeMs)) {
  process.setSourceMapsEnabled(true);
  await import(built);
} else {
  process.env.TSX_TSCONFIG_PATH ??= join(root, 'tsconfig.json');
  const { register } = await import('tsx/esm/api');
  register();
  await import('./main.ts');
}
