import { CuesPlace } from '@/interface/cues/cues-place';

export const metadata = { title: 'Boards' };

export default function Page() {
  return <CuesPlace />;
}
