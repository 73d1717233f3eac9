import { unstable_rethrow } from 'next/navigation';
import type { Result } from '@/core/refusal';

const LOST = {
  ok: false,
  status: 0,
  message: 'The server didn’t answer. Check the network, see whether it was done, then try again.',
  problems: [],
} as const satisfies Result<never>;

/** An action's answer; where the line is cut, a refusal that says so. What sends the page elsewhere goes on. */
export async function answered<T>(action: Promise<Result<T>>): Promise<Result<T>> {
  try {
    return await action;
  } catch (error) {
    unstable_rethrow(error);
    return LOST;
  }
}

/** Why a route of ours refused a request, in its own words; null if it didn't. */
export async function problemIn(request: Promise<Response>): Promise<string | null> {
  try {
    const response = await request;
    if (response.ok) return null;
    const { title } = (await response.json()) as { readonly title?: string };
    return title ?? LOST.message;
  } catch {
    return LOST.message;
  }
}
