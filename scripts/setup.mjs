// What a fresh machine lacks, step by step: Debian's packages, npm's, the production build. Plain Node: runs before `npm ci`.
import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { postgresPrograms } from './cluster.mjs';

const has = (program) => spawnSync('sh', ['-c', `command -v ${program}`]).status === 0;
const hasFont = (file) =>
  existsSync('/usr/share/fonts') &&
  spawnSync('sh', ['-c', `find /usr/share/fonts -name '${file}' | grep -q .`]).status === 0;

const NEEDED = [
  ['postgresql', () => postgresPrograms() !== null],
  ['ffmpeg', () => has('ffmpeg') && has('ffprobe')],
  ['poppler-utils', () => has('pdftoppm')],
  ['libheif-examples', () => has('heif-convert')],
  // A foreign reader of XML, and the W3C's own grammars: for tests.
  ['libxml2-utils', () => has('xmllint')],
  ['w3c-sgml-lib', () => existsSync('/usr/share/xml/w3c-sgml-lib')],
  ['chromium', () => existsSync('/usr/bin/chromium')],
  ['fonts-noto-core', () => hasFont('NotoSans-Regular.ttf')],
  ['fonts-noto-cjk', () => hasFont('NotoSansCJK-Regular.ttc')],
];

const step = (text) => console.log(`• ${text}`);

/** Installs what is missing of Debian's packages; without root or apt, says in one sentence what to install, and exits 1. */
function installPackages() {
  const missing = NEEDED.filter(([, present]) => !present()).map(([name]) => name);
  if (missing.length === 0) return;
  if (process.getuid?.() !== 0 || !has('apt-get')) {
    console.error(
      `Some packages are missing and can't be installed from here: install ${missing.join(', ')}, then start again.`,
    );
    process.exit(1);
  }
  step(`Debian's packages: ${missing.join(', ')}`);
  const apt = (...args) =>
    execFileSync('apt-get', args, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  apt('update', '-qq');
  apt('install', '-y', '-qq', '--no-install-recommends', ...missing);
}

function installModules() {
  const wanted = createHash('sha256').update(readFileSync('package-lock.json')).digest('hex');
  const stamp = 'node_modules/.lanternpost';
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  step("npm's packages");
  execFileSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  writeFileSync(stamp, wanted);
}

/** A hash of everything that the build is made from. */
function sources() {
  const hash = createHash('sha256');
  const visit = (path) => {
    if (statSync(path).isDirectory()) {
      for (const name of readdirSync(path).sort()) if (path !== 'public' || name !== 'player') visit(join(path, name));
    } else if (!/\.test\.tsx?$|\.jsonl$/.test(path)) hash.update(path).update(readFileSync(path));
  };
  [
    'src',
    'bin',
    'public',
    'next.config.ts',
    'postcss.config.mjs',
    'tsconfig.json',
    'package-lock.json',
    'scripts/build-player.mjs',
    'scripts/build-cli.mjs',
  ].forEach(visit);
  return hash.digest('hex');
}

function build() {
  const wanted = sources();
  const stamp = '.next/lanternpost-sources';
  if (existsSync(stamp) && existsSync('.next/BUILD_ID') && readFileSync(stamp, 'utf8') === wanted) return;
  step('Production build');
  execFileSync('npm', ['run', '--silent', 'build'], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' },
  });
  writeFileSync(stamp, wanted);
}

/** Makes the project ready to run: what is done already costs nothing. */
export function setUp() {
  if (Number(process.versions.node.split('.')[0]) < 20) {
    console.error(`Node ${process.versions.node} is too old: install Node 20 or later.`);
    process.exit(1);
  }
  installPackages();
  installModules();
  build();
  mkdirSync('data', { recursive: true });
}
