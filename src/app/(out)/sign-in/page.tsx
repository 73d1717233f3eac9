import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { SignInForm } from '@/interface/people/forms';
import { currentActor } from '@/web/session';
import { isUnclaimed } from '@/services/people';

export const metadata: Metadata = { title: 'Log in' };
export const dynamic = 'force-dynamic';

export default async function SignInPage() {
  if (await currentActor()) redirect('/');
  if (await isUnclaimed()) redirect('/first-person');
  return (
    <>
      <h1 className="mb-6 text-3xl">Log in</h1>
      <SignInForm />
      <details className="mt-6 text-sm">
        <summary className="cursor-pointer py-1 text-tide">I forgot my password</summary>
        <p className="mt-2">
          Ask an owner of your network. They can make a link for you in People, with which you set a new password. You
          don’t lose any work.
        </p>
        <p className="mt-2">
          If no owner can log in either, the person who runs the server can make such a link with{' '}
          <code className="font-code text-xs">lanternpost person reset E-MAIL</code>.
        </p>
      </details>
    </>
  );
}
