/**
 * How many random cases a property is tried with: `count`, or that times what the environment's PROPERTY_TIMES says, from a
 * small share (for every one of many mutants) to many times (before a release).
 */
export const runs = (count: number) => ({ numRuns: Math.ceil(count * Number(process.env.PROPERTY_TIMES ?? 1)) });
