import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { FirstPersonForm } from '@/interface/people/forms';
import { isUnclaimed } from '@/services/people';

export const metadata: Metadata = { title: 'First person' };
export const dynamic = 'force-dynamic';

export default async function FirstPersonPage() {
  if (!(await isUnclaimed())) redirect('/sign-in');
  return (
    <>
      <h1 className="text-3xl">A new network</h1>
      <p className="mt-2 mb-6 text-faint">You are the first person here. This page works only once.</p>
      <FirstPersonForm />
    </>
  );
}
