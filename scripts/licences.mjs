// `npm run licences`: writes docs/licences.md, what the packages that are shipped may be used for, by package-lock.json.
import { readFileSync, writeFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';

/** Licences that a package of ours may have, and what they ask of us. */
export const ALLOWED = {
  MIT: 'its notice stays',
  ISC: 'its notice stays',
  '0BSD': 'nothing',
  Unlicense: 'nothing',
  'BSD-2-Clause': 'its notice stays',
  'BSD-3-Clause': 'its notice stays, no names in advertising',
  'Apache-2.0': 'its notice stays, changes are told',
  'BlueOak-1.0.0': 'its text or a link stays',
  'PSF-2.0': 'its notice stays',
  'MPL-2.0': 'its files stay under it; used as they come',
  'OFL-1.1': 'fonts: not sold alone; used as they come',
  'LGPL-3.0-or-later': 'libvips, a library of its own that can be exchanged; used as it comes',
  'Apache-2.0 AND LGPL-3.0-or-later': 'as both',
  'Apache-2.0 AND LGPL-3.0-or-later AND MIT': 'as all three',
  'CC-BY-4.0': 'data, its author named: caniuse.com',
  '(ISC AND CC-BY-3.0)': 'its notice stays; data, its author named: date-holidays, after Wikipedia',
  '(MIT OR CC0-1.0)': 'its notice stays',
};

/** Packages whose manifest names no licence, by what they say of it elsewhere, as somebody has read it. */
const READ = {
  // In its readme.
  'combine-errors 3.0.3': 'MIT',
  // In its LICENSE.
  'suncalc 2.0.2': 'BSD-2-Clause',
};

/** Packages that are shipped, by licence: names with versions, in order. */
export function shipped(lock) {
  const by = new Map();
  for (const [path, { version, license, dev }] of Object.entries(lock.packages)) {
    if (path === '' || dev) continue;
    const name = `${path.split('node_modules/').pop()} ${version}`;
    const known = license ?? READ[name] ?? 'none';
    by.set(known, (by.get(known) ?? new Set()).add(name));
  }
  return new Map([...by].sort().map(([license, names]) => [license, [...names].sort()]));
}

/** The document as it must stand. */
export function licencesDocument(lock) {
  const parts = [...shipped(lock)].map(
    ([license, names]) =>
      `## ${license} (${names.length})\n\nAsks: ${ALLOWED[license] ?? 'not looked at'}.\n\n${names.join(', ')}\n`,
  );
  return `# Licences

What is shipped, by \`package-lock.json\`; written by \`npm run licences\`. Lanternpost itself is under the MIT licence. A package of another
licence than these fails the tests until somebody has looked at what it asks.

${parts.join('\n')}`;
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href)
  writeFileSync('docs/licences.md', licencesDocument(JSON.parse(readFileSync('package-lock.json', 'utf8'))));
