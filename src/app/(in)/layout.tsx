import { cookies, headers } from 'next/headers';
import type { ReactNode } from 'react';
import { isZone } from '@/core/when';
import { loadView } from '@/interface/data/view';
import { inNameOf } from '@/services/people';
import { requireActor } from '@/web/session';
import { ZONE_COOKIE } from '@/interface/data/zone-cookie';
import { KEEP_EARLY } from '@/interface/shell/early';
import { Shell } from '@/interface/shell/shell';

export const dynamic = 'force-dynamic';

export default async function InsideLayout({ children }: { children: ReactNode }) {
  const cookie = decodeURIComponent((await cookies()).get(ZONE_COOKIE)?.value ?? '');
  const zone = isZone(cookie) ? cookie : 'UTC';
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  const actor = await requireActor();
  return (
    <>
      <script nonce={nonce} suppressHydrationWarning dangerouslySetInnerHTML={{ __html: KEEP_EARLY }} />
      <Shell view={await inNameOf(actor, () => loadView(actor, zone))} zone={zone}>
        {children}
      </Shell>
    </>
  );
}
