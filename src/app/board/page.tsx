import type { Metadata } from 'next';
import { BoardPage } from '@/interface/cues/board-page';

export const metadata: Metadata = { title: 'Board', referrer: 'no-referrer' };
export const dynamic = 'force-dynamic';

/** A board that its link opens, without logging in. */
export default function Page() {
  return <BoardPage />;
}
