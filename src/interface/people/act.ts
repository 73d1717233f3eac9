import type { Result } from '@/core/refusal';

/** How the parts of this place do things: the answer is shown, and the lists are loaded again. */
export type RunAndTell = <T>(work: Promise<Result<T>>, said: string) => Promise<Result<T>>;
