'use client';

import { useEffect, type ReactNode } from 'react';
import { MomentProvider } from '@/interface/data/moment';
import { ZoneProvider } from '@/interface/data/zone';
import { NetworkProvider } from '@/interface/data/provider';
import type { NetworkView } from '@/interface/data/state';
import { ArrivalNotice } from '@/interface/publish/arrival-notice';
import { WaitingNotice } from '@/interface/publish/waiting-notice';
import { CatchFiles } from '@/interface/sending/catch-files';
import { actEarly } from './early';
import { Palette } from './palette';
import { Shortcuts } from './shortcuts';
import { TimeRail } from './time-rail';
import { TopBar } from './top-bar';

/** What surrounds every place: the slim bar above, the time rail below, and the keys. */
export function Shell({ view, zone, children }: { view: NetworkView; zone: string; children: ReactNode }) {
  // Effects of what is inside went before: all listen by now.
  useEffect(() => void actEarly(), []);
  return (
    <ZoneProvider zone={zone}>
      <NetworkProvider view={view}>
        <MomentProvider>
          <div className="flex h-dvh flex-col">
            <a
              href="#place"
              className="fixed top-2 left-2 z-50 -translate-y-20 bg-dusk px-4 py-2 text-on-dusk focus:translate-y-0"
            >
              Skip to the place
            </a>
            <TopBar />
            {/* What scrolls can be scrolled by keys, also where it holds nothing that takes the focus. */}
            {/* eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex */}
            <main id="place" tabIndex={0} className="relative min-h-0 flex-1 overflow-y-auto -outline-offset-2">
              {children}
            </main>
            <TimeRail />
          </div>
          <Shortcuts />
          <CatchFiles />
          <ArrivalNotice />
          <WaitingNotice />
          <Palette />
        </MomentProvider>
      </NetworkProvider>
    </ZoneProvider>
  );
}
