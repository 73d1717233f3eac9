import type { Metadata } from 'next';
import { TrayPlace } from '@/interface/screens/tray/tray-place';

export const metadata: Metadata = { title: 'Waiting players' };

export default function TrayPage() {
  return <TrayPlace />;
}
