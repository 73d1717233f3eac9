import type { Metadata } from 'next';
import { NetworkPlace } from '@/interface/network/network-place';

export const metadata: Metadata = { title: 'Network' };

export default function NetworkPage() {
  return <NetworkPlace />;
}
