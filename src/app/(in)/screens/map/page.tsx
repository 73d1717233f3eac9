import type { Metadata } from 'next';
import { MapPlace } from '@/interface/screens/map/map-place';

export const metadata: Metadata = { title: 'Map of screens' };

export default function MapPage() {
  return <MapPlace />;
}
