// `npm run bench [-- NAME …]`: sets up what is missing, then measures.
import { spawnSync } from 'node:child_process';
import { setUp } from './setup.mjs';

setUp();
process.exit(spawnSync('npx', ['tsx', 'bench/bench.ts', ...process.argv.slice(2)], { stdio: 'inherit' }).status ?? 1);
