import type { Metadata } from 'next';
import { LibraryPlace } from '@/interface/library/library-place';

export const metadata: Metadata = { title: 'Library' };

export default function LibraryPage() {
  return <LibraryPlace />;
}
