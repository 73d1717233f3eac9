import type { Metadata } from 'next';
import { LayoutsPlace } from '@/interface/layouts/layouts-place';

export const metadata: Metadata = { title: 'Layouts' };

export default function LayoutsPage() {
  return <LayoutsPlace />;
}
