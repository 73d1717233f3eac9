// `npm run faults [-- --minutes 20]`: sets up what is missing, then kills at random and audits.
import { spawnSync } from 'node:child_process';
import { setUp } from './setup.mjs';

setUp();
const args = ['tsx', 'e2e/faults/run.ts', ...process.argv.slice(2)];
process.exit(spawnSync('npx', args, { stdio: 'inherit' }).status ?? 1);
