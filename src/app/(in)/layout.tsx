import type { ReactNode } from 'react';
import { loadView } from '@/interface/data/view';
import { requireActor } from '@/interface/people/session';
import { Shell } from '@/interface/shell/shell';

export const dynamic = 'force-dynamic';

export default async function InsideLayout({ children }: { children: ReactNode }) {
  return <Shell view={await loadView(await requireActor())}>{children}</Shell>;
}
