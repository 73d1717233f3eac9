'use client';

import type { ReactNode } from 'react';
import { MomentProvider } from '@/interface/data/moment';
import { ZoneProvider } from '@/interface/data/zone';
import { NetworkProvider } from '@/interface/data/provider';
import type { NetworkView } from '@/interface/data/state';
import { NoticeLine } from './notice';
import { Shortcuts } from './shortcuts';
import { TimeRail } from './time-rail';
import { TopBar } from './top-bar';

/** What surrounds every place: the slim bar above, the time rail below, and the keys. */
export function Shell({ view, zone, children }: { view: NetworkView; zone: string; children: ReactNode }) {
  return (
    <ZoneProvider zone={zone}>
      <NetworkProvider view={view}>
        <MomentProvider>
          <div className="flex h-dvh flex-col">
            <TopBar />
            <main id="place" className="min-h-0 flex-1 overflow-y-auto">
              {children}
            </main>
            <NoticeLine />
            <TimeRail />
          </div>
          <Shortcuts />
        </MomentProvider>
      </NetworkProvider>
    </ZoneProvider>
  );
}
