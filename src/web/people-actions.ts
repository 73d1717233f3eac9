'use server';

import { cookies } from 'next/headers';
import { redirect } from 'next/navigation';
import * as z from 'zod';
import type { Refused, Result } from '@/core/refusal';
import {
  changePassword,
  claim,
  endKey,
  endSession,
  invite,
  join,
  makeKey,
  offerOf,
  offerReset,
  readInput,
  removePerson,
  setRole,
  signIn,
  signOut,
  signOutPerson,
  withdraw,
  type GivenLink,
  type Offer,
  type OpenSession,
} from '@/services/people';
import { attempt, attemptAs } from './attempt';
import { rowSchema } from './inputs';
import { keepSession, requestOrigin, sessionToken } from './session';
import { SESSION_COOKIE } from '@/services/people/session-cookie';

/** Signs a person in and goes to Now; an error is returned. */
async function enter(work: () => Promise<OpenSession>): Promise<Result<null>> {
  const result = await attempt(work);
  if (!result.ok) return result;
  await keepSession(result.value);
  redirect('/');
}

export async function signInAction(input: unknown): Promise<Result<null>> {
  return enter(async () => signIn(input, await requestOrigin()));
}

export async function claimAction(input: unknown): Promise<Result<null>> {
  return enter(async () => claim(input, await requestOrigin()));
}

/** What came back of a form that was sent before the page's script ran: why it was refused, and what stood in it but for the password. */
export interface SentBack {
  readonly refused: Refused | null;
  readonly values: Readonly<Record<string, string>>;
}

async function enterPlainly(form: FormData, act: (input: unknown) => Promise<Result<null>>): Promise<SentBack> {
  const fields = [...form].flatMap(([name, value]) => (typeof value === 'string' ? [[name, value] as const] : []));
  const { password, ...values } = Object.fromEntries(fields);
  const result = await act({ ...values, password });
  return { refused: result.ok ? null : result, values };
}

export async function signInPlainly(_before: SentBack, form: FormData): Promise<SentBack> {
  return enterPlainly(form, signInAction);
}

export async function claimPlainly(_before: SentBack, form: FormData): Promise<SentBack> {
  return enterPlainly(form, claimAction);
}

export async function signOutAction(): Promise<void> {
  await signOut(await sessionToken());
  (await cookies()).delete(SESSION_COOKIE);
  redirect('/sign-in');
}

const linkSchema = z.string().max(100);

/** What an invitation's link is for. */
export async function offerAction(token: string): Promise<Result<Offer>> {
  return attempt(async () => offerOf(readInput(linkSchema, token), await requestOrigin()));
}

export async function joinAction(token: string, input: unknown): Promise<Result<null>> {
  return enter(async () => join(readInput(linkSchema, token), input, await requestOrigin()));
}

export async function inviteAction(input: unknown): Promise<Result<GivenLink>> {
  return attemptAs((actor) => invite(actor, input));
}

export async function offerResetAction(person: string): Promise<Result<GivenLink>> {
  return attemptAs((actor) => offerReset(actor, readInput(rowSchema, person)));
}

export async function withdrawAction(invitation: string): Promise<Result<void>> {
  return attemptAs((actor) => withdraw(actor, readInput(rowSchema, invitation)));
}

export async function removePersonAction(person: string): Promise<Result<void>> {
  return attemptAs((actor) => removePerson(actor, readInput(rowSchema, person)));
}

export async function setRoleAction(person: string, role: string): Promise<Result<void>> {
  return attemptAs((actor) => setRole(actor, readInput(rowSchema, person), role));
}

export async function signOutPersonAction(person: string): Promise<Result<void>> {
  return attemptAs((actor) => signOutPerson(actor, readInput(rowSchema, person)));
}

export async function endSessionAction(session: string): Promise<Result<void>> {
  return attemptAs((actor) => endSession(actor, readInput(rowSchema, session)));
}

export async function makeKeyAction(input: unknown): Promise<Result<{ readonly id: string; readonly token: string }>> {
  return attemptAs((actor) => makeKey(actor, input));
}

export async function endKeyAction(key: string): Promise<Result<void>> {
  return attemptAs((actor) => endKey(actor, readInput(rowSchema, key)));
}

export async function changePasswordAction(input: unknown): Promise<Result<void>> {
  return attemptAs(async (actor) => changePassword(actor, input, await sessionToken()));
}
