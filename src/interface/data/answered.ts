import { unstable_rethrow } from 'next/navigation';
import type { Result } from '@/core/refusal';

const LOST: Result<never> = {
  ok: false,
  status: 0,
  message: 'The server didn’t answer. Check the network, see whether it was done, then try again.',
  problems: [],
};

/** An action's answer; where the line is cut, a refusal that says so. What sends the page elsewhere goes on. */
export async function answered<T>(action: Promise<Result<T>>): Promise<Result<T>> {
  try {
    return await action;
  } catch (error) {
    unstable_rethrow(error);
    return LOST;
  }
}
