import type { Metadata } from 'next';
import { LayoutById } from '@/interface/layouts/layout-page';

export const metadata: Metadata = { title: 'Layout' };

export default async function LayoutPage({ params }: { params: Promise<{ id: string }> }) {
  return <LayoutById id={(await params).id} />;
}
