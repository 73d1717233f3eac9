// What `npm run mutants` runs for each fault: tests of one folder, or one test, as the core's project runs them.
import jestConfig from './jest.config.mjs';

const tests = process.env.LANTERNPOST_MUTANTS_TESTS ?? '';
const [core] = jestConfig.projects;

export default {
  ...core,
  displayName: undefined,
  testTimeout: jestConfig.testTimeout,
  testMatch: [`<rootDir>/${tests}${tests.endsWith('.test.ts') ? '' : '/**/*.test.ts'}`],
};
