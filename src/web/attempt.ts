import { logOnce } from '@/log';
import { currentActor } from '@/web/session';
import { Refusal, type Result } from '@/core/refusal';
import { inNameOf, type Actor } from '@/services/people';
import { troubleOf } from '@/services/trouble';

/** Runs an action's work; what a person can fix comes back as a sentence, what only we can is logged once. */
export async function attempt<T>(work: () => Promise<T>): Promise<Result<T>> {
  try {
    return { ok: true, value: await work() };
  } catch (error) {
    const refusal = error instanceof Refusal ? error : troubleOf(error);
    if (refusal !== error) logOnce(error, 'action failed');
    if (refusal) return { ok: false, status: refusal.status, message: refusal.message, problems: refusal.problems };
    return {
      ok: false,
      status: 500,
      message: 'Something went wrong on the server. Nothing was changed. Try again in a moment.',
      problems: [],
    };
  }
}

/** The same for a signed-in person. */
export function attemptAs<T>(work: (actor: Actor) => Promise<T>): Promise<Result<T>> {
  return attempt(async () => {
    const actor = await currentActor();
    if (!actor) throw new Refusal(401, 'You are logged out. Log in again.');
    return inNameOf(actor, () => work(actor));
  });
}
