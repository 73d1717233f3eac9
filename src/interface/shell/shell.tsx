'use client';

import { useEffect, type ReactNode } from 'react';
import { MomentProvider } from '@/interface/data/moment';
import { ZoneProvider } from '@/interface/data/zone';
import { MayProvider } from '@/interface/data/may';
import { NetworkProvider } from '@/interface/data/provider';
import type { NetworkView } from '@/interface/data/state';
import { ArrivalNotice } from '@/interface/publish/arrival-notice';
import { RequestNotice } from '@/interface/publish/request-notice';
import { WaitingNotice } from '@/interface/publish/waiting-notice';
import { CatchFiles } from '@/interface/sending/catch-files';
import { actEarly } from './early';
import { Palette } from './palette';
import { Shortcuts } from './shortcuts';
import { keepPressesSteady } from './steady-press';
import { TimeRail } from './time-rail';
import { TopBar } from './top-bar';

/** What surrounds every place: the slim bar above, the time rail below, and the keys. */
export function Shell({ view, zone, children }: { view: NetworkView; zone: string; children: ReactNode }) {
  // Effects of what is inside went before: all listen by now.
  useEffect(() => void actEarly(), []);
  useEffect(() => keepPressesSteady(document), []);
  return (
    <ZoneProvider zone={zone}>
      <NetworkProvider view={view}>
        <MayProvider role={view.role}>
          <MomentProvider>
            <div className="flex h-dvh flex-col">
              <a
                href="#place"
                className="fixed top-2 left-2 z-50 -translate-y-20 bg-dusk px-4 py-2 text-on-dusk focus:translate-y-0"
              >
                Skip to the content
              </a>
              <TopBar />
              {/* What gets the focus comes clear of the bars above and below. What scrolls is scrolled by keys, also with nothing in it to focus. */}
              <main
                id="place"
                // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
                tabIndex={0}
                className="relative min-h-0 flex-1 scroll-pt-36 scroll-pb-24 overflow-y-auto -outline-offset-2"
              >
                {children}
              </main>
              <TimeRail />
            </div>
            <Shortcuts />
            <CatchFiles />
            <ArrivalNotice />
            <WaitingNotice />
            <RequestNotice />
            <Palette />
          </MomentProvider>
        </MayProvider>
      </NetworkProvider>
    </ZoneProvider>
  );
}
