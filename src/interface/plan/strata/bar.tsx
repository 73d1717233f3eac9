'use client';

import type { KeyboardEvent } from 'react';
import type { Finding, LocalTime } from '@/core';
import { Thumb } from '@/interface/kit/thumb';
import { spanWords } from '../wall-words';
import { layerName, type Bar } from './layout';
import type { WallScale } from './scale';

export const LANE_HEIGHT = 26;

const LABEL_ROOM = 24;
const PICTURE = 36;

/** A booking's occasion: its ends can be pulled, its name stands in it or beside it. */
export function BarButton({
  bar,
  scale,
  left,
  bottom,
  picture,
  findings,
  mark,
  held,
  tabbable,
  onFocus,
  onOpen,
  onKeyDown,
}: {
  bar: Bar;
  scale: WallScale;
  left: number;
  bottom: number;
  /** Address of a picture of what it shows. */
  picture: string | undefined;
  findings: readonly Finding[];
  /** Where it has trouble. */
  mark: { readonly at: LocalTime; readonly finding: Finding } | undefined;
  /** Whether it is in hand now, or waits to be changed. */
  held: boolean;
  tabbable: boolean;
  onFocus: () => void;
  onOpen: () => void;
  onKeyDown: (event: KeyboardEvent) => void;
}) {
  const { booking, sighting } = bar;
  const right = Math.min(scale.x(sighting.end), scale.width);
  const width = Math.max(3, right - left);
  const hidden = findings.some(({ kind, about }) => kind === 'hidden' && about[0] === booking.id);
  const named = booking.name.length * 6.5 + LABEL_ROOM;
  const inside = width >= named;
  const pictured = picture !== undefined && width >= named + PICTURE && !booking.onHold;
  const room = (bar.next === null ? scale.width : Math.min(scale.width, scale.x(bar.next as LocalTime))) - right - 6;
  const name = (
    <span className="pointer-events-none truncate text-[13px] leading-[20px]">
      {booking.name}
      {booking.onHold && ' (on hold)'}
    </span>
  );
  return (
    <>
      <button
        type="button"
        data-bar={bar.key}
        data-booking-bar={booking.id}
        tabIndex={tabbable ? 0 : -1}
        aria-label={`${booking.name}, ${layerName(bar.layer)}, ${spanWords(sighting.start, sighting.end)}${booking.onHold ? ', on hold' : ''}${findings.map(({ kind }) => `, ${kind}`).join('')}`}
        onFocus={onFocus}
        onDoubleClick={onOpen}
        onKeyDown={onKeyDown}
        className={`absolute flex items-center overflow-hidden border text-left focus-visible:z-10 focus-visible:outline-offset-1 ${
          booking.onHold
            ? 'border-dashed border-faint bg-transparent text-faint'
            : hidden
              ? 'border-dashed border-dusk bg-paper'
              : 'border-dusk bg-dusk/20'
        } ${bar.layer === 'takeover' && !booking.onHold ? 'hatch' : ''} ${held ? 'opacity-35' : ''}`}
        style={{ left, width, bottom, height: LANE_HEIGHT - 4 }}
      >
        <span data-part="start" className="absolute inset-y-0 left-0 w-1.5 cursor-ew-resize bg-dusk/70" />
        {pictured && (
          <Thumb
            src={picture}
            alt=""
            className="pointer-events-none ml-1.5 h-full shrink-0 !bg-transparent object-cover"
          />
        )}
        {inside && <span className="flex min-w-0 items-center gap-1.5 px-2.5">{name}</span>}
        <span data-part="end" className="absolute inset-y-0 right-0 w-1.5 cursor-ew-resize" />
      </button>
      {mark && (
        <span
          aria-hidden
          title={mark.finding.sentence}
          className="pointer-events-none absolute z-10 bg-brick px-[3px] font-code text-[10px] leading-[13px] text-paper"
          style={{ left: Math.max(left, scale.x(mark.at)) - 2, bottom: bottom + LANE_HEIGHT - 14 }}
        >
          !
        </span>
      )}
      {!inside && room > 48 && (
        <span
          aria-hidden
          className={`pointer-events-none absolute flex items-center ${booking.onHold ? 'text-faint' : ''}`}
          style={{ left: right + 4, width: Math.min(room, 220), bottom, height: LANE_HEIGHT - 4 }}
        >
          {name}
        </span>
      )}
    </>
  );
}
