// Builds the command line: a piece for each command, so that one loads no more than it needs. Packages stay what they are.
import { rmSync } from 'node:fs';
import { build } from 'esbuild';

rmSync('.cli', { recursive: true, force: true });
await build({
  entryPoints: { main: 'bin/main.ts' },
  outdir: '.cli',
  outExtension: { '.js': '.mjs' },
  bundle: true,
  splitting: true,
  packages: 'external',
  platform: 'node',
  format: 'esm',
  target: 'node20',
  tsconfig: 'tsconfig.json',
  sourcemap: true,
  logLevel: 'warning',
});
