const transform = {
  '^.+\\.(t|j|mj)sx?$': [
    '@swc/jest',
    {
      jsc: {
        parser: { syntax: 'typescript', tsx: true },
        target: 'es2022',
        transform: { react: { runtime: 'automatic' } },
      },
      module: { type: 'commonjs' },
    },
  ],
};
const shared = {
  transform,
  transformIgnorePatterns: [
    'node_modules/(?!(@noble|@tus|srvx|canonicalize|uuid|file-type|strtok3|token-types|uint8array-extras|@tokenizer|@borewit|eventsource-parser|idb|p-limit|yocto-queue|d3-[a-z-]+|internmap)/)',
  ],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
  resolver: '<rootDir>/scripts/jest-resolver.cjs',
  testEnvironment: 'node',
};

/** Two projects: the core on its own, and everything that needs a PostgreSQL server. */
export default {
  maxWorkers: 2,
  // Shared machines stand still at times: what hangs is told late rather than what is slow is told as wrong.
  testTimeout: 60_000,
  projects: [
    { ...shared, displayName: 'core', testMatch: ['<rootDir>/src/{core,player,fleet,bridge,interface}/**/*.test.ts'] },
    {
      ...shared,
      displayName: 'services',
      testMatch: ['<rootDir>/{src/{database,services,protocol,jobs,demo,web},bin}/**/*.test.ts'],
      globalSetup: '<rootDir>/scripts/jest-database.mjs',
      globalTeardown: '<rootDir>/scripts/jest-database-stop.mjs',
    },
  ],
};
