// Builds the player page: its own small bundle, apart from the interface's.
import { copyFileSync, mkdirSync } from 'node:fs';
import { build } from 'esbuild';

const out = 'public/player';
mkdirSync(out, { recursive: true });
await build({
  entryPoints: { player: 'src/player/page/main.ts', sw: 'src/player/page/sw.ts' },
  outdir: out,
  bundle: true,
  minify: true,
  format: 'esm',
  target: 'chrome110',
  tsconfig: 'tsconfig.json',
  logLevel: 'warning',
});
copyFileSync('src/player/page/index.html', `${out}/index.html`);
copyFileSync('src/player/page/player.css', `${out}/player.css`);
const fonts = 'node_modules/@fontsource-variable';
copyFileSync(`${fonts}/bricolage-grotesque/files/bricolage-grotesque-latin-wght-normal.woff2`, `${out}/heading.woff2`);
copyFileSync(`${fonts}/martian-mono/files/martian-mono-latin-wght-normal.woff2`, `${out}/mono.woff2`);
