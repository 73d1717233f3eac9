import makeTemplate from './instance';

/** Makes the sample network ahead of the walks (`scripts/test.mjs`), beside what leaves processors free. */
await makeTemplate();
