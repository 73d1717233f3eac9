import { createHash, type Hash } from 'node:crypto';
import { setImmediate } from 'node:timers/promises';
import { compilationSteps, type CompiledBase, type CompiledEdition, type Digest } from '@/core/edition';
import { sharing, type Plan } from '@/core/plan';
import { Refusal, type Result } from '@/core/refusal';

/**
 * The SHA-256 of texts in pieces, by the machine's own. Texts that begin alike are gone through as far as they do once: where 5 000
 * screens are of 250 kinds, what they say is hashed 250 times.
 */
export function digester(): Digest {
  const begun = new Map<string, Map<string, Hash>>();
  const after = ([first = '', second = '']: readonly string[]): Hash => {
    const known = begun.get(first) ?? new Map<string, Hash>();
    begun.set(first, known);
    const hash = known.get(second) ?? createHash('sha256').update(first).update(second);
    known.set(second, hash);
    return hash.copy();
  };
  return (parts) => {
    const hash = after(parts);
    for (const part of parts.slice(2)) hash.update(part);
    return hash.digest('hex');
  };
}

/** How long a compilation keeps this process from everything else at once, in milliseconds. */
const SLICE_MS = 8;

/** How long a plan may take as a whole, in milliseconds. */
const DEADLINE_MS = 90_000;

/**
 * Compiles a plan, on top of what was compiled before where that is known; in slices, since others wait for the same process.
 * Throws 503 past the deadline.
 */
export async function compile(
  plan: Plan,
  base?: CompiledBase,
  sliceMs = SLICE_MS,
  deadlineMs = DEADLINE_MS,
): Promise<Result<CompiledEdition>> {
  const late = performance.now() + deadlineMs;
  const steps = compilationSteps(base ? sharing(base.plan, plan) : plan, base, digester());
  for (;;) {
    const end = performance.now() + sliceMs;
    do {
      const step = steps.next();
      if (step.done) return step.value;
    } while (performance.now() < end);
    if (performance.now() > late)
      throw new Refusal(503, `This plan takes longer than ${deadlineMs / 1000} seconds to compute. Make it smaller.`);
    await setImmediate();
  }
}
