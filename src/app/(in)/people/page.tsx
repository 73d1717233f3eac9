import type { Metadata } from 'next';
import { PeoplePlace } from '@/interface/people/people-place';

export const metadata: Metadata = { title: 'People' };

export default function PeoplePage() {
  return <PeoplePlace />;
}
