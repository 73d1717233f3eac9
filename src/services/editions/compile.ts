import { setImmediate } from 'node:timers/promises';
import { compilationSteps, sharing, type CompiledBase, type CompiledEdition, type Plan, type Result } from '@/core';

/** How long a compilation keeps this process from everything else at once, in milliseconds. */
const SLICE_MS = 8;

/** Compiles a plan, on top of what was compiled before where that is known; in slices, since others wait for the same process. */
export async function compile(plan: Plan, base?: CompiledBase, sliceMs = SLICE_MS): Promise<Result<CompiledEdition>> {
  const steps = compilationSteps(base ? sharing(base.plan, plan) : plan, base);
  for (;;) {
    const end = performance.now() + sliceMs;
    do {
      const step = steps.next();
      if (step.done) return step.value;
    } while (performance.now() < end);
    await setImmediate();
  }
}
