// `npm run mutants -- FOLDER|FILE …`: puts small faults into the code, one at a time, and tells which of them no test finds. Fails
// below 85 in 100 found. A file is tried with the tests beside it first, about a second for four faults; what these do not find, with
// all tests of its layer that need no database, which takes some seconds each (`--quick` leaves that out). `--sample=10` tries a
// tenth of the lines, for a figure of a whole layer within the hour.
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { group } from 'd3-array';

const LAYERS = ['core', 'player', 'interface', 'services'];
const ENOUGH = 85;
/** Where Stryker tells what became of each fault, and where we do. */
const REPORT = 'test-results/mutants-report.json';
const LEFT = 'test-results/mutants.txt';
/** What only a browser, a worker's thread or a database runs: tried in the real interface and against PostgreSQL, not here. */
const OUTSIDE = /\/(use-[^/]+|main|sw|send|worker|client|provider|queries|view|zone-cookie|lantern-image)\.ts$/;

const layerOf = (path) => path.split('/').slice(0, 2).join('/');
const isFound = ({ status }) => status === 'Killed' || status === 'Timeout';
const isTried = (one) => isFound(one) || one.status === 'Survived' || one.status === 'NoCoverage';

const asked = process.argv.slice(2).filter((one) => !one.startsWith('--'));
const quick = process.argv.includes('--quick');
const every = Number(/^--sample=(\d+)$/.exec(process.argv.find((one) => one.startsWith('--sample')) ?? '')?.[1] ?? 1);
const wanted = asked.length > 0 ? asked : LAYERS.map((layer) => `src/${layer}`);
const unknown = wanted.find((path) => !existsSync(path) || !LAYERS.some((layer) => layerOf(path) === `src/${layer}`));
if (unknown) {
  console.error(`There is nothing to try in "${unknown}": name folders or files below src/${LAYERS.join(', src/')}.`);
  process.exit(2);
}

/** Services mostly need PostgreSQL: tried are their pure parts, which have a test of their own that does not. */
function isTriedHere(path) {
  if (OUTSIDE.test(path)) return false;
  if (layerOf(path) !== 'src/services') return true;
  const test = path.replace(/\.ts$/, '.test.ts');
  return existsSync(test) && !readFileSync(test, 'utf8').includes('useDatabase');
}

function sourcesIn(path) {
  if (statSync(path).isDirectory())
    return readdirSync(path).flatMap((name) => (name === 'tests' ? [] : sourcesIn(join(path, name))));
  return /\.ts$/.test(path) && !/\.test\.ts$/.test(path) && isTriedHere(path) ? [path] : [];
}

/** The nearest folder with tests: the file's own, or one above it in its layer. */
function testsOf(file) {
  if (layerOf(file) === 'src/services') return file.replace(/\.ts$/, '.test.ts');
  for (let folder = dirname(file); folder !== layerOf(file); folder = dirname(folder))
    if (readdirSync(folder).some((name) => name.endsWith('.test.ts'))) return folder;
  return layerOf(file);
}

/** Puts faults at places, and runs the tests of a folder for each; the faults, each with what became of it. */
function tryAt(places, tests) {
  rmSync(REPORT, { force: true });
  const { status } = spawnSync('npx', ['stryker', 'run', '--mutate', places.join()], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: {
      PROPERTY_TIMES: '0.1',
      ...process.env,
      LANTERNPOST_MUTANTS_TESTS: tests,
      LANTERNPOST_MUTANTS_REPORT: REPORT,
    },
  });
  if (!existsSync(REPORT)) {
    console.error(`Nothing could be tried: do the tests of ${tests} pass as they are? (Stryker ended with ${status}.)`);
    process.exit(1);
  }
  const { files } = JSON.parse(readFileSync(REPORT, 'utf8'));
  return Object.entries(files).flatMap(([file, { mutants, source }]) =>
    mutants.filter(isTried).map((one) => ({ file, source, ...one })),
  );
}

/** A file, or of a sample every so many of its blocks of lines; which of them comes first differs from file to file. */
const BLOCK = 5;
function samplesOf(file, place) {
  if (every <= 1) return [file];
  const lines = readFileSync(file, 'utf8').split('\n').length;
  const found = [];
  for (let line = 1 + BLOCK * (place % every); line <= lines; line += BLOCK * every)
    found.push(`${file}:${line}-${line + BLOCK - 1}`);
  return found;
}

const keyOf = ({ file, location, mutatorName, replacement }) =>
  JSON.stringify([file, location, mutatorName, replacement]);
const placeOf = ({ file, location: { start, end } }) =>
  `${file}:${start.line}:${start.column - 1}-${end.line}:${end.column - 1}`;
const told = ({ file, source, location: { start, end }, mutatorName, replacement }) => {
  const line = source.split('\n')[start.line - 1] ?? '';
  const was = start.line === end.line ? line.slice(start.column - 1, end.column - 1) : `${line.trim()} …`;
  return `${file}:${start.line}:${start.column}  ${mutatorName}\n  - ${was}\n  + ${replacement}`;
};

const tried = [];
for (const [tests, files] of group(wanted.flatMap(sourcesIn), testsOf)) {
  const places = files.flatMap(samplesOf);
  if (places.length === 0) continue;
  const faults = new Map(tryAt(places, tests).map((one) => [keyOf(one), one]));
  const left = [...faults.values()].filter((one) => !isFound(one));
  if (left.length > 0 && !quick && tests !== layerOf(tests) && layerOf(tests) !== 'src/services')
    for (const one of tryAt([...new Set(left.map(placeOf))], layerOf(tests)))
      if (isFound(one) && faults.has(keyOf(one))) faults.set(keyOf(one), one);
  tried.push(...faults.values());
  const found = [...faults.values()].filter(isFound).length;
  console.log(`${tests}: ${found} of ${faults.size} found`);
}
const found = tried.filter(isFound).length;
writeFileSync(
  LEFT,
  tried
    .filter((one) => !isFound(one))
    .map((one) => `${told(one)}\n\n`)
    .join(''),
);
const share = tried.length === 0 ? 100 : (100 * found) / tried.length;
console.log(`${found} of ${tried.length} faults found, ${share.toFixed(1)} in 100. Those that are left: ${LEFT}`);
process.exit(share >= ENOUGH ? 0 : 1);
