/** Small faults, one at a time: each should make a test fail. Started by `npm run mutants` (scripts/mutants.mjs). */
export default {
  testRunner: 'jest',
  jest: { configFile: 'jest.mutants.config.mjs', enableFindRelatedTests: false },
  coverageAnalysis: 'perTest',
  // A fault in what is made once, as a module is loaded, would need all tests anew.
  ignoreStatic: true,
  concurrency: 2,
  timeoutMS: 8_000,
  tempDirName: 'test-results/mutants',
  ignorePatterns: ['/data', '/.next', '/.cli', '/test-results', '/public', '/e2e', '/bench', '/bin'],
  reporters: ['json'],
  jsonReporter: { fileName: process.env.LANTERNPOST_MUTANTS_REPORT },
};
