import { cuesBench } from './cues';
import { editsBench } from './edits';
import { findingsBench } from './findings';
import { firingBench } from './firing';
import { layoutsBench } from './layouts';
import { libraryBench } from './library';
import { forecastBench } from './forecast';
import { docketBench } from './docket';
import { publishBench } from './publish';
import { nowBench } from './now';
import { planBench } from './plan';
import { playlistsBench } from './playlists';
import { playerMemoryBench } from './player-memory';
import { screensBench } from './screens';
import { tableBench } from './table';
import { wallBench } from './wall';
import { yearBench } from './year';

/** `npm run bench [-- NAME …]`: prints a JSON line for each figure; all of them without a name, but for what takes half an hour. */
const BENCHES: Record<string, () => Promise<void>> = {
  cues: cuesBench,
  forecast: forecastBench,
  findings: findingsBench,
  docket: docketBench,
  publish: publishBench,
  firing: firingBench,
  now: nowBench,
  plan: planBench,
  edits: editsBench,
  layouts: layoutsBench,
  library: libraryBench,
  playlists: playlistsBench,
  screens: screensBench,
  table: tableBench,
  wall: wallBench,
  year: yearBench,
  'player-memory': playerMemoryBench,
};

/** Run by their names alone: they take long, the players' memory half an hour. */
const LONG: readonly string[] = ['player-memory', 'layouts'];

const wanted = process.argv.slice(2);
const unknown = wanted.filter((name) => !BENCHES[name]);
if (unknown.length > 0) {
  console.error(`There’s no benchmark ${unknown.join(', ')}. The names are ${Object.keys(BENCHES).join(', ')}.`);
  process.exit(2);
}
for (const [name, run] of Object.entries(BENCHES))
  if (wanted.length === 0 ? !LONG.includes(name) : wanted.includes(name)) await run();
process.exit(0);
