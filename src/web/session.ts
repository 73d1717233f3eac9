import { cache } from 'react';
import { cookies, headers } from 'next/headers';
import { Refusal } from '@/core/refusal';
import { redirect } from 'next/navigation';
import { actorOf, isUnclaimed, type Actor, type Origin } from '@/services/people';
import { SESSION_COOKIE } from '@/services/people/session-cookie';

/** The signed-in person of this request, or null. */
export const currentActor = cache(async (): Promise<Actor | null> =>
  actorOf((await cookies()).get(SESSION_COOKIE)?.value),
);

/** The signed-in person of this page; sends anybody else to where they can become one. */
export async function requireActor(): Promise<Actor> {
  const actor = await currentActor();
  if (actor) return actor;
  redirect((await isUnclaimed()) ? '/first-person' : '/sign-in');
}

/** Keeps a session token in the browser: out of reach of scripts, and not sent along from other sites. */
export async function keepSession({ token, expires }: { token: string; expires: Date }): Promise<void> {
  const secure = (await headers()).get('x-forwarded-proto')?.split(',')[0] === 'https';
  (await cookies()).set(SESSION_COOKIE, token, { httpOnly: true, sameSite: 'lax', secure, path: '/', expires });
}

/** The session token of this request; empty where there is none. */
export const sessionToken = async (): Promise<string> => (await cookies()).get(SESSION_COOKIE)?.value ?? '';

/** The address that this request comes from, for rate limits: the server before Next has settled it (`bin/addresses.ts`). */
export async function requestAddress(): Promise<string> {
  return (await headers()).get('x-forwarded-for') ?? 'unknown';
}

/** The secret of a link to a board, as its page sends it: it is in no address that a log has. Throws 401 without one. */
export function linkSecret(request: Request): string {
  const token = /^Bearer\s+(\S+)$/i.exec(request.headers.get('authorization') ?? '')?.[1];
  if (token === undefined) throw new Refusal(401, 'Open this page by the whole link, or by its QR code.');
  return token;
}

/** Where this request comes from, and what the browser or program calls itself. */
export async function requestOrigin(): Promise<Origin> {
  return { address: await requestAddress(), agent: (await headers()).get('user-agent') };
}
