import type { Metadata } from 'next';
import { NowPlace } from '@/interface/now/now-place';

export const metadata: Metadata = { title: 'Now' };

export default function NowPage() {
  return <NowPlace />;
}
