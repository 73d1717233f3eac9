import type { Metadata } from 'next';
import { ScreenById } from '@/interface/screen/screen-page';

export const metadata: Metadata = { title: 'Screen' };

export default async function ScreenPage({ params }: { params: Promise<{ id: string }> }) {
  return <ScreenById id={decodeURIComponent((await params).id)} />;
}
