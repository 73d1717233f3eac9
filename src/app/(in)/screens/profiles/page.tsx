import type { Metadata } from 'next';
import { ProfilesPlace } from '@/interface/profiles/profiles-place';

export const metadata: Metadata = { title: 'Profiles' };

export default function ProfilesPage() {
  return <ProfilesPlace />;
}
