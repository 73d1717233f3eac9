'use client';

import { useDraggable, useDroppable } from '@dnd-kit/core';
import { useRef, useState, type KeyboardEvent } from 'react';
import { SAFE_MARGIN, bordersOf, isFree, measured, type Border } from '@/core/layouts';
import { objectIn, type Layout, type Zone } from '@/core/plan';
import { useNetwork, useThumbnails } from '@/interface/data/provider';
import { contentName, firstMedia } from '@/interface/kit/content/content';
import { CardWords } from '@/interface/kit/content/card-words';
import { FIT_CLASSES, Thumb } from '@/interface/kit/content/thumb';
import { useWidth } from '@/interface/kit/page/use-width';
import { BorderHandle } from './border-handle';
import { useSettled } from './use-settled';
import type { Dragged } from './use-zone-dragging';

/** The highest that a layout is drawn, in pixels of the page. */
const MOST_HEIGHT = 380;

/** A layout as large as there is room: its zones to choose and move, and the borders between them to pull. */
export function Canvas({
  layout,
  zones,
  chosen,
  onChoose,
  onPull,
  onChange,
}: {
  layout: Layout;
  /** As they are now, also during a pull. */
  zones: readonly Zone[];
  chosen: string | null;
  onChoose: (zone: string) => void;
  /** Shows zones while a border is pulled; null puts them back. */
  onPull: (zones: readonly Zone[] | null) => void;
  onChange: (zones: readonly Zone[]) => void;
}) {
  const room = useRef<HTMLDivElement>(null);
  const width = useWidth(room, 640);
  const [isPulling, setPulling] = useState(false);
  const scale = Math.min(width / layout.width, MOST_HEIGHT / layout.height);
  // During a pull, the borders are those from which it began: none is lost under the pointer.
  const borders = bordersOf(layout.zones).filter((border) => isOffered(layout, border, chosen));
  const moved = useSettled((to: Place) => onChange(placed(layout, to)));
  const margin = `${SAFE_MARGIN * 100}%`;
  return (
    <div ref={room}>
      <div
        data-testid="layout"
        className="relative outline-1 outline-rule"
        style={{
          width: layout.width * scale,
          height: layout.height * scale,
          background: layout.background ?? '#000',
        }}
      >
        {zones.map((zone) => (
          <ZoneBox
            key={zone.id}
            zones={zones}
            zone={zone}
            scale={scale}
            isChosen={zone.id === chosen}
            onChoose={() => onChoose(zone.id)}
            onMove={(to) => {
              onPull(placed(layout, to));
              moved.put(to);
            }}
            onLeave={moved.flush}
          />
        ))}
        {isPulling && (
          <span
            aria-hidden
            className="pointer-events-none absolute border border-dashed border-[#faf7f0] mix-blend-difference"
            style={{ inset: margin }}
          />
        )}
        {borders.map((border) => (
          <BorderHandle
            key={keyOf(border)}
            layout={layout}
            border={border}
            scale={scale}
            onPull={(next) => {
              setPulling(next !== null);
              onPull(next);
            }}
            onChange={(next) => {
              setPulling(false);
              onChange(next);
            }}
          />
        ))}
      </div>
    </div>
  );
}

/** Where a zone is moved to. */
type Place = Pick<Zone, 'id' | 'x' | 'y'>;

/** The zones as they are now, with one of them in another place, within the layout. */
const placed = (layout: Layout, { id, x, y }: Place): Zone[] =>
  measured(measured(layout.zones, id, 'x', x, layout), id, 'y', y, layout);

const keyOf = ({ axis, before, after }: Border) => `${axis} ${before.join()} ${after.join()}`;

/** Borders between zones are always there; an edge with nothing beyond it belongs to the chosen zone, or to one that lies over others. */
function isOffered({ zones }: Layout, { before, after }: Border, chosen: string | null): boolean {
  if (before.length > 0 && after.length > 0) return true;
  const all = [...before, ...after];
  return all.some((id) => id === chosen || isFree(zones, id));
}

function ZoneBox({
  zones,
  zone,
  scale,
  isChosen,
  onChoose,
  onMove,
  onLeave,
}: {
  zones: readonly Zone[];
  zone: Zone;
  scale: number;
  isChosen: boolean;
  onChoose: () => void;
  onMove: (to: Place) => void;
  /** The focus goes elsewhere: what was moved is saved. */
  onLeave: () => void;
}) {
  const { draft } = useNetwork('draft');
  const thumbnail = useThumbnails();
  const data: Dragged = { zone: zone.id, scale };
  const drag = useDraggable({ id: `zone ${zone.id}`, data });
  const drop = useDroppable({ id: zone.id });
  const media = zone.content && firstMedia(draft, zone.content);
  const shows = zone.content ? contentName(zone.content, draft) : 'nothing yet';
  const card = zone.content?.bulletin === undefined ? null : objectIn(draft, 'bulletin', zone.content.bulletin);
  const moves = isFree(zones, zone.id);
  const moveByKey = (event: KeyboardEvent) => {
    const by = event.shiftKey ? 10 : 1;
    const step = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }[event.key];
    if (!step || !moves || event.altKey || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    onMove({ id: zone.id, x: zone.x + (step[0] ?? 0), y: zone.y + (step[1] ?? 0) });
  };
  return (
    <button
      ref={(element) => {
        drag.setNodeRef(element);
        drop.setNodeRef(element);
      }}
      {...drag.listeners}
      type="button"
      data-zone={zone.id}
      aria-pressed={isChosen}
      aria-label={`${zone.id}: ${shows}, ${zone.width} × ${zone.height} pixels`}
      title={moves ? 'Drag it, or move it with the arrow keys' : 'Drag it onto another zone to swap them'}
      onClick={onChoose}
      onKeyDown={moveByKey}
      onBlur={onLeave}
      className={`absolute flex touch-none items-center justify-center overflow-hidden bg-[#1b2330] text-[#fff] outline-offset-[-3px] ${isChosen ? 'outline-4 outline-[#faf7f0]' : 'outline-1 outline-[#ffffff66]'} ${drop.isOver ? 'brightness-125' : ''}`}
      style={{ left: zone.x * scale, top: zone.y * scale, width: zone.width * scale, height: zone.height * scale }}
    >
      {media !== undefined && (
        <Thumb
          src={thumbnail(media)}
          alt=""
          className={`absolute inset-0 h-full w-full !bg-transparent ${FIT_CLASSES[zone.fit ?? 'whole']}`}
        />
      )}
      {card && <CardWords words={card.text} />}
      <span className="absolute top-0 left-0 max-w-full truncate bg-[#1b2330] px-1.5 text-left text-xs leading-5">
        {zone.id}
        {zone.sound && ' · heard'}
      </span>
      {media === undefined && !card && (
        <span className="max-h-full overflow-hidden px-2 text-center text-sm leading-tight">
          {zone.content ? shows : 'Drop something here'}
        </span>
      )}
    </button>
  );
}
