import { readFileSync } from 'node:fs';
import { ALLOWED, licencesDocument, shipped } from '../scripts/licences.mjs';

const read = <T>(path: string) => JSON.parse(readFileSync(path, 'utf8')) as T;
const lock = read<Parameters<typeof shipped>[0]>('package-lock.json');

test('every version is one version', () => {
  const { dependencies, devDependencies } = read<Record<string, Record<string, string>>>('package.json');
  const loose = Object.entries({ ...dependencies, ...devDependencies }).filter(
    ([, version]) => !/^\d[\w.-]*$/.test(version),
  );
  expect(loose).toEqual([]);
});

test('what is shipped has licences that somebody has looked at, and the list of them is current', () => {
  expect([...shipped(lock).keys()].filter((license) => !ALLOWED[license])).toEqual([]);
  expect(readFileSync('docs/licences.md', 'utf8')).toBe(licencesDocument(lock));
});

test('a package of another licence, or of none, is seen', () => {
  const packages = {
    '': {},
    'node_modules/a': { version: '1.0.0' },
    'node_modules/b': { version: '2.0.0', license: 'X', dev: true },
  };
  expect([...shipped({ packages })]).toEqual([['none', ['a 1.0.0']]]);
});
