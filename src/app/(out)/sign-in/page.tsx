import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { SignInForm } from '@/interface/people/forms';
import { currentActor } from '@/web/session';
import { isUnclaimed } from '@/services/people';

export const metadata: Metadata = { title: 'Sign in' };
export const dynamic = 'force-dynamic';

export default async function SignInPage() {
  if (await currentActor()) redirect('/');
  if (await isUnclaimed()) redirect('/first-person');
  return (
    <>
      <h1 className="mb-6 text-3xl">Sign in</h1>
      <SignInForm />
    </>
  );
}
