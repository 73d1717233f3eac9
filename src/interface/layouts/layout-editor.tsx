'use client';

import { DndContext, DragOverlay } from '@dnd-kit/core';
import { useState } from 'react';
import { changed, type Layout, type Zone } from '@/core/plan';
import { Locked, Only, WhyNot } from '@/interface/data/may';
import { useNetwork } from '@/interface/data/provider';
import { AsSeenOn } from './as-seen-on';
import { Canvas } from './canvas';
import { LayoutActs } from './layout-acts';
import { LayoutHead } from './layout-head';
import { Shelf } from './shelf';
import { useZoneDragging } from './use-zone-dragging';
import { ZoneActs } from './zone-acts';
import { ZoneForm } from './zone-form';

/** One layout: its zones to pull, fill and say more of, what the network has to put into them, and how all screens see it. */
export function LayoutEditor({ layout }: { layout: Layout }) {
  const { edit } = useNetwork('edit');
  const [wanted, choose] = useState<string | null>(null);
  /** What the zones are during a pull or a move. */
  const [pulled, pull] = useState<readonly Zone[] | null>(null);
  const zones = pulled ?? layout.zones;
  const zone = zones.find(({ id }) => id === wanted) ?? zones[0];
  const change = (next: readonly Zone[]) => {
    // It is seen at once.
    const saved = edit(changed('layout', layout, { zones: [...next] }));
    pull(null);
    return saved;
  };
  const { context, carried } = useZoneDragging({ layout, choose, pull, change });
  return (
    <DndContext id="layout" {...context}>
      <div className="flex h-full min-h-0 max-md:h-auto max-md:flex-col">
        <div className="min-w-0 flex-1 overflow-y-auto px-3 py-4 sm:px-6">
          <LayoutHead layout={layout} />
          <WhyNot needs="plan" />
          <div className="mt-3 flex flex-wrap items-start gap-x-6 gap-y-4">
            <div className="min-w-0 basis-[30rem] grow-[3]">
              <Locked needs="plan">
                <Canvas
                  layout={layout}
                  zones={zones}
                  chosen={zone?.id ?? null}
                  onChoose={choose}
                  onPull={pull}
                  onChange={(next) => void change(next)}
                />
                <ZoneActs
                  layout={layout}
                  zone={zone}
                  onChoose={choose}
                  onChange={(next, now) => void change(next).then(({ ok }) => ok && now !== undefined && choose(now))}
                />
              </Locked>
              <AsSeenOn layout={layout} />
            </div>
            {zone && (
              <Locked needs="plan">
                <ZoneForm key={zone.id} layout={layout} zone={zone} onChange={change} onNamed={(id) => choose(id)} />
              </Locked>
            )}
          </div>
          <LayoutActs layout={layout} />
        </div>
        <Only needs="plan">
          <Shelf
            zone={zone?.id ?? null}
            onAdd={(content) =>
              zone && void change(layout.zones.map((one) => (one.id === zone.id ? { ...one, content } : one)))
            }
          />
        </Only>
      </div>
      <DragOverlay dropAnimation={null}>
        {carried && <span className="block max-w-48 truncate bg-dusk px-2 py-1 text-sm text-on-dusk">{carried}</span>}
      </DragOverlay>
    </DndContext>
  );
}
