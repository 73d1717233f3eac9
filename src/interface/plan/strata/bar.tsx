'use client';

import { memo } from 'react';
import type { Finding, LocalTime } from '@/core';
import { Thumb } from '@/interface/kit/thumb';
import { spanWords } from '../site-clock-words';
import { gripOf, type Grip } from './grip';
import { fitted, nameWidth } from './label';
import { layerName, type Bar } from './layout';
import type { TimeScale } from './scale';

export const LANE_HEIGHT = 26;
export const BAR_HEIGHT = 22;
/** Where ends are pulled is measured from the outside of a bar's border. */
const BORDER = 1;
/** Bars stand in the middle of their lane. */
const BOTTOM = (LANE_HEIGHT - BAR_HEIGHT) / 2;

const LABEL_ROOM = 24;
const PICTURE = 36;
const WIDEST_NAME = 220;
const NAME = 'text-[13px] leading-[22px]';

/** A booking's occasion: its ends can be pulled, its name stands in it or beside it. The field around it hears its keys. */
export const BarButton = memo(function BarButton({
  bar,
  scale,
  picture,
  findings,
  mark,
  held,
  tabbable,
}: {
  bar: Bar;
  scale: TimeScale;
  /** Address of a picture of what it shows. */
  picture: string | undefined;
  findings: readonly Finding[];
  /** Where it has trouble. */
  mark: { readonly at: LocalTime; readonly finding: Finding } | undefined;
  /** Whether it is in hand now, or waits to be changed. */
  held: boolean;
  tabbable: boolean;
}) {
  const { booking, localOccasion } = bar;
  const left = Math.max(0, scale.x(localOccasion.start));
  const right = Math.min(scale.x(localOccasion.end), scale.width);
  const width = Math.max(3, right - left);
  const hidden = findings.some(({ kind, about }) => kind === 'hidden' && about[0] === booking.id);
  const called = booking.onHold ? `${booking.name} (on hold)` : booking.name;
  const named = nameWidth(called) + LABEL_ROOM;
  const inside = width >= named;
  const pictured = picture !== undefined && width >= named + PICTURE && !booking.onHold;
  const grip = gripOf(width);
  const room = (bar.next === null ? scale.width : Math.min(scale.width, scale.x(bar.next as LocalTime))) - right - 6;
  return (
    <>
      <button
        type="button"
        data-bar={bar.key}
        data-booking-bar={booking.id}
        tabIndex={tabbable ? 0 : -1}
        aria-label={`${booking.name}, ${layerName(bar.layer)}, ${spanWords(localOccasion.start, localOccasion.end)}${booking.onHold ? ', on hold' : ''}${findings.map(({ kind }) => `, ${kind}`).join('')}`}
        className={`group absolute flex items-center border text-left whitespace-nowrap focus-visible:z-10 focus-visible:outline-offset-0 ${
          booking.onHold
            ? 'border-dashed border-faint bg-transparent text-faint'
            : hidden
              ? 'border-dashed border-dusk bg-paper'
              : 'border-dusk bg-dusk/20'
        } ${bar.layer === 'takeover' && !booking.onHold ? 'hatch' : ''} ${held ? 'opacity-35' : ''}`}
        style={{ left, width, bottom: BOTTOM, height: BAR_HEIGHT }}
      >
        <span
          aria-hidden
          className="pointer-events-none absolute inset-y-0 left-0 bg-dusk/70"
          style={{ width: grip.inside || 2 }}
        />
        <End part="start" grip={grip} />
        {pictured && (
          <Thumb
            src={picture}
            alt=""
            className="pointer-events-none ml-1.5 h-full shrink-0 !bg-transparent object-cover"
          />
        )}
        {inside && <span className={`pointer-events-none px-2.5 ${NAME}`}>{called}</span>}
        <End part="end" grip={grip} />
      </button>
      {mark && (
        <span
          aria-hidden
          title={mark.finding.sentence}
          className="pointer-events-none absolute z-10 bg-brick px-[3px] font-code text-[10px] leading-[13px] text-paper"
          style={{ left: Math.max(left, scale.x(mark.at)) - 2, top: 1 }}
        >
          !
        </span>
      )}
      {!inside && room > 48 && (
        <span
          aria-hidden
          className={`pointer-events-none absolute whitespace-nowrap ${NAME} ${booking.onHold ? 'text-faint' : ''}`}
          style={{ left: right + 4, bottom: BOTTOM }}
        >
          {fitted(called, Math.min(room, WIDEST_NAME))}
        </span>
      )}
    </>
  );
});

/** Where an end is pulled. Outside a bar it is there only while one points at the bar: what stands beside it is taken as ever. */
function End({ part, grip }: { part: 'start' | 'end'; grip: Grip }) {
  const width = grip.inside + grip.outside;
  return (
    <span
      data-part={part}
      className={`absolute inset-y-0 cursor-ew-resize ${grip.outside > 0 ? 'hidden group-hover:block group-focus:block' : ''}`}
      style={{ width, [part === 'start' ? 'left' : 'right']: -grip.outside - BORDER }}
    />
  );
}
