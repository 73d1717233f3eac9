/** Of the cases of a property, the share that the usual run tries: `npm run test:long` tries all. */
const USUAL = 1 / 3;

/**
 * How many random cases a property is tried with: a third of `count`, or `count` times what the environment's PROPERTY_TIMES says, from
 * a small share (for every one of many mutants) to many times (before a release).
 */
export const runs = (count: number) => ({ numRuns: Math.ceil(count * Number(process.env.PROPERTY_TIMES ?? USUAL)) });
