// What `npm run mutants` runs for each fault: tests of one folder (LANTERNPOST_MUTANTS_TESTS), as the core's project runs them.
import jestConfig from './jest.config.mjs';

const [{ displayName: _displayName, ...core }] = jestConfig.projects;

export default {
  ...core,
  testTimeout: jestConfig.testTimeout,
  testMatch: [`<rootDir>/${process.env.LANTERNPOST_MUTANTS_TESTS}/**/*.test.ts`],
};
