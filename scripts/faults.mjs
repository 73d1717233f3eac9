// The table of faults in docs/faults.md: its rows, and whether the tests that it names were run and passed.
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** The rows of all tables of the document, in order. A cell's bars stand as `\|`. */
export function faultRows(document) {
  return document
    .split('\n')
    .filter((line) => line.startsWith('| '))
    .map((line) =>
      line
        .slice(1, line.lastIndexOf('|'))
        .split(/(?<!\\)\|/)
        .map((cell) => cell.trim().replaceAll('\\|', '|')),
    )
    .filter(([fault]) => fault !== 'fault' && !/^-+$/.test(fault))
    .map(([fault, told, test]) => ({ fault, told, test }));
}

/** The tests that passed, as `file › name`, of the reports that Jest and Playwright leave in a folder. */
export function passedTests(folder, root = process.cwd()) {
  const read = (name) => {
    const path = join(folder, name);
    return existsSync(path) ? JSON.parse(readFileSync(path, 'utf8')) : null;
  };
  const jest = (read('jest.json')?.testResults ?? []).flatMap(({ name, assertionResults }) =>
    assertionResults
      .filter((one) => one.status === 'passed')
      .map((one) => `${name.replace(`${root}/`, '')} › ${[...one.ancestorTitles, one.title].join(' › ')}`),
  );
  const specs = (suite, above) => [
    ...suite.specs.filter((one) => one.ok).map((one) => `e2e/${one.file} › ${[...above, one.title].join(' › ')}`),
    ...(suite.suites ?? []).flatMap((inner) => specs(inner, [...above, inner.title])),
  ];
  const playwright = (read('playwright.json')?.suites ?? []).flatMap((suite) => specs(suite, []));
  return new Set([...jest, ...playwright]);
}

/** Rows whose test was not run, or did not pass. */
export const untold = (rows, passed) =>
  rows.filter(({ test }) => test !== 'here' && ![...passed].some((one) => one.startsWith(test)));
