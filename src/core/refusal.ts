/** A mistake in a document: an RFC 6901 JSON Pointer to the place, and a sentence that says what to do. */
export interface Problem {
  readonly path: string;
  readonly message: string;
  /** In a text: the offset of the character at which reading stopped. */
  readonly at?: number | undefined;
  /** Where two people changed the same: the present value, and who changed it, as far as is known. */
  readonly theirs?: { readonly value: unknown; readonly words: string; readonly by: string | null } | undefined;
}

/** Why something was not done: an HTTP status (RFC 9110), a sentence that says what to do, and the places where known. */
export interface Refused {
  readonly status: number;
  readonly message: string;
  readonly problems: readonly Problem[];
}

/** What was asked for, or why not. The one shape in which core, services and interface answer what a user can cause. */
export type Result<T> = { readonly ok: true; readonly value: T } | ({ readonly ok: false } & Refused);

/** A refusal on its way up: what a service throws, and `refused` turns into a result again. */
export class Refusal extends Error implements Refused {
  constructor(
    readonly status: number,
    message: string,
    readonly problems: readonly Problem[] = [],
  ) {
    super(message);
    this.name = 'Refusal';
  }
}

export const done = <T>(value: T): Result<T> => ({ ok: true, value });

/** A refusal as a result. The message is the first problem's where none is given; 422 where no status is. */
export function refused(
  problems: readonly Problem[],
  message = problems[0]?.message ?? 'This can’t be done.',
  status = 422,
): { readonly ok: false } & Refused {
  return { ok: false, status, message, problems };
}

/** A text that can't be read, from the character at offset `at` on. */
export const misread = (message: string, at = 0) => refused([{ path: '', message, at }]);

/** The value, or the refusal thrown. */
export function orThrow<T>(result: Result<T>): T {
  if (result.ok) return result.value;
  throw new Refusal(result.status, result.message, result.problems);
}

/** What some work answers, or the refusal that it throws; anything else goes on up. */
export function answered<T>(work: () => T): Result<T> {
  try {
    return done(work());
  } catch (error) {
    if (error instanceof Refusal) return refused(error.problems, error.message, error.status);
    throw error;
  }
}

/** For the end of a switch over kinds: a kind that was added and forgotten there does not compile. */
export function never(value: never): never {
  throw new RangeError(`Not a known kind: ${JSON.stringify(value)}`);
}
