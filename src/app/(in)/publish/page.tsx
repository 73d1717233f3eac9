import type { Metadata } from 'next';
import { PublishPlace } from '@/interface/publish/publish-place';

export const metadata: Metadata = { title: 'Publish' };

export default function PublishPage() {
  return <PublishPlace />;
}
