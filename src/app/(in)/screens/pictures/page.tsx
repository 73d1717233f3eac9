import type { Metadata } from 'next';
import { PicturesPlace } from '@/interface/glimpses/pictures-place';

export const metadata: Metadata = { title: 'Pictures' };

export default function PicturesPage() {
  return <PicturesPlace />;
}
