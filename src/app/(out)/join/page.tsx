import type { Metadata } from 'next';
import { JoinForm } from '@/interface/people/join-form';

export const metadata: Metadata = { title: 'Join' };
export const dynamic = 'force-dynamic';

export default function JoinPage() {
  return <JoinForm />;
}
