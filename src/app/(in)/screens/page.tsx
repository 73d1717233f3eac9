import type { Metadata } from 'next';
import { ScreensPlace } from '@/interface/screens/screens-place';

export const metadata: Metadata = { title: 'Screens' };

export default function ScreensPage() {
  return <ScreensPlace />;
}
