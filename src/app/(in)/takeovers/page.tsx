import { TakeoversPlace } from '@/interface/takeovers/takeovers-place';

export const metadata = { title: 'Takeovers' };

export default function Page() {
  return <TakeoversPlace />;
}
