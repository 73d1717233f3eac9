'use client';

import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { limitsOf, pulled, snapped, stopsFor, type Border } from '@/core/layouts';
import type { Layout, Zone } from '@/core/plan';
import { useMay } from '@/interface/data/may';
import { useSettled } from './use-settled';
import { NEAR_PX } from './use-zone-dragging';

/** How wide the part of a border is that can be gripped, in pixels of the page. */
const GRIP_PX = 24;

/** A border that is pulled with the pointer, or by the arrow keys: a pixel each, ten with Shift. */
export function BorderHandle({
  layout,
  border,
  scale,
  onPull,
  onChange,
}: {
  layout: Layout;
  border: Border;
  /** Pixels of the page to one of the layout. */
  scale: number;
  onPull: (zones: readonly Zone[] | null) => void;
  onChange: (zones: readonly Zone[]) => void;
}) {
  const may = useMay('plan');
  const { axis, before, after } = border;
  const { zones } = layout;
  const [least, most] = limitsOf(zones, border, layout);
  /** Where it is while it is pulled. */
  const [at, setAt] = useState<number | null>(null);
  /** Where the pointer began a pull, and where the border has come to. */
  const begun = useRef<{ readonly pointer: number; at: number } | null>(null);
  const settled = useSettled((to: number) => {
    begun.current = null;
    setAt(null);
    if (to === border.at) onPull(null);
    else onChange(pulled(zones, border, to, layout));
  });
  const pull = (next: number): number => {
    const kept = Math.round(Math.min(most, Math.max(least, next)));
    setAt(kept);
    onPull(pulled(zones, border, kept, layout));
    return kept;
  };
  const giveUp = () => {
    settled.drop();
    begun.current = null;
    setAt(null);
    onPull(null);
  };
  const pointerAt = ({ clientX, clientY }: PointerEvent) => (axis === 'x' ? clientX : clientY);
  const onMove = (event: PointerEvent) => {
    if (begun.current === null) return;
    const free = border.at + (pointerAt(event) - begun.current.pointer) / scale;
    const stops = stopsFor(zones, axis, layout, [...before, ...after]);
    begun.current.at = pull(event.altKey ? free : snapped(free, stops, NEAR_PX / scale));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Escape' && at !== null) {
      event.stopPropagation();
      return giveUp();
    }
    const [less, more] = axis === 'x' ? ['ArrowLeft', 'ArrowRight'] : ['ArrowUp', 'ArrowDown'];
    const step = event.key === less ? -1 : event.key === more ? 1 : 0;
    if (step === 0 || event.altKey || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    settled.put(pull((at ?? border.at) + step * (event.shiftKey ? 10 : 1)));
  };
  const now = at ?? border.at;
  const [across, along] = [now * scale - GRIP_PX / 2, border.from * scale];
  const long = (border.to - border.from) * scale;
  const named = [before.join(', '), after.join(', ')].filter((names) => names !== '');
  return (
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- a border that can be moved is a widget (WAI-ARIA, separator)
    <div
      role="separator"
      // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- the same
      tabIndex={may ? 0 : -1}
      aria-label={named.length === 2 ? `Border between ${named[0]} and ${named[1]}` : `Edge of ${named[0]}`}
      aria-orientation={axis === 'x' ? 'vertical' : 'horizontal'}
      aria-valuenow={now}
      aria-valuemin={least}
      aria-valuemax={most}
      aria-valuetext={`${now} pixels`}
      onPointerDown={(event) => {
        if (!may || event.button !== 0) return;
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        event.currentTarget.focus();
        begun.current = { pointer: pointerAt(event), at: border.at };
      }}
      onPointerMove={onMove}
      onPointerUp={() => {
        if (begun.current === null) return;
        settled.put(begun.current.at);
        settled.flush();
      }}
      onPointerCancel={giveUp}
      onKeyDown={onKeyDown}
      onBlur={settled.flush}
      className={`group absolute z-10 flex touch-none items-center justify-center outline-none ${axis === 'x' ? 'cursor-col-resize' : 'cursor-row-resize'}`}
      style={
        axis === 'x'
          ? { left: across, top: along, width: GRIP_PX, height: long }
          : { top: across, left: along, height: GRIP_PX, width: long }
      }
    >
      <span
        className={`block bg-[#faf7f0] outline-1 outline-[#1b2330] group-focus-visible:bg-[#34406b] group-focus-visible:outline-2 group-focus-visible:outline-[#faf7f0] group-hover:bg-tide ${axis === 'x' ? 'h-full max-h-14 w-1.5' : 'h-1.5 w-full max-w-14'}`}
      />
      {at !== null && (
        <span className="absolute bg-[#1b2330] px-1.5 font-code text-xs whitespace-nowrap text-[#fff]">{at} px</span>
      )}
    </div>
  );
}
