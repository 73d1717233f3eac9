// `npm run demo`: sets up what is missing, then starts the sample network. `-- --reset` begins with fresh data.
import { spawn } from 'node:child_process';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { setUp } from './setup.mjs';

process.chdir(join(dirname(fileURLToPath(import.meta.url)), '..'));
setUp();
const child = spawn(process.execPath, ['bin/lanternpost.mjs', 'start', '--demo', ...process.argv.slice(2)], {
  stdio: 'inherit',
});
// Ctrl-C reaches the child from the terminal; a signal to this process alone is passed on.
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => child.kill(signal));
child.on('exit', (code) => process.exit(code ?? 0));
