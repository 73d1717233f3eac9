'use client';

import { memo, type CSSProperties } from 'react';
import type { Finding } from '@/core/preflight';
import type { LocalTime } from '@/core/when';
import { spanWords } from '../site-clock-words';
import { gripOf, type Grip } from './grip';
import { fitted, nameWidth } from './label';
import { layerName, type Bar } from './layout';
import type { TimeScale } from './scale';
import { BAR_HEIGHT, LANE_HEIGHT } from './sizes';

/** Where ends are pulled is measured from the outside of a bar's border. */
const BORDER = 1;
/** Bars are in the middle of their lane. */
const BOTTOM = (LANE_HEIGHT - BAR_HEIGHT) / 2;

const LABEL_ROOM = 24;
const MARK_ROOM = 12;
/** From so much room beside its name on, a bar shows what it brings as a strip of pictures. */
const STRIP_FROM = 28;
const WIDEST_NAME = 220;
/** With less room than this beside a bar, its name isn't shown there. */
const NAMED_FROM = 48;
const NAME = 'text-[13px] leading-[22px]';

/** A booking's occasion: its ends can be pulled, its name is in it or beside it. The field around it handles its keys. */
export const BarButton = memo(function BarButton({
  bar,
  scale,
  picture,
  shade,
  findings,
  mark,
  held,
  tabbable,
}: {
  bar: Bar;
  scale: TimeScale;
  /** Address of a picture of what it shows. */
  picture: string | undefined;
  /** The colour of that picture on the whole, as CSS has it. */
  shade: string | undefined;
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
  const besides = mark ? MARK_ROOM : 0;
  const named = nameWidth(called) + LABEL_ROOM + besides;
  const inside = width >= named;
  const strip = picture !== undefined && width >= named + STRIP_FROM && !booking.onHold && !hidden;
  const grip = gripOf(width);
  const room = (bar.next === null ? scale.width : Math.min(scale.width, scale.x(bar.next as LocalTime))) - right - 6;
  // A name too long for its bar is beside it; without room there either, the bar shows as much of it as fits.
  const words = inside ? called : room <= NAMED_FROM ? fitted(called, width - LABEL_ROOM - besides) : '';
  return (
    <>
      <button
        type="button"
        data-bar={bar.key}
        data-booking-bar={booking.id}
        tabIndex={tabbable ? 0 : -1}
        aria-label={`${booking.name}, ${layerName(bar.layer)}, ${spanWords(localOccasion.start, localOccasion.end)}${booking.onHold ? ', on hold' : ''}${booking.overlay ? ', over whatever plays' : ''}${findings.map(({ kind }) => `, ${kind}`).join('')}`}
        className={`group absolute flex items-center border text-left whitespace-nowrap focus-visible:z-10 focus-visible:outline-offset-0 ${
          booking.onHold
            ? 'border-dashed border-faint bg-transparent text-faint'
            : hidden
              ? 'border-dashed border-dusk bg-paper'
              : `border-dusk ${shade ? 'shade' : 'bg-dusk/20'}`
        } ${bar.layer === 'takeover' && !booking.onHold ? 'hatch' : ''} ${held ? 'opacity-35' : ''}`}
        style={
          { left, width, bottom: BOTTOM, height: BAR_HEIGHT, ...(shade ? { '--shade': shade } : {}) } as CSSProperties
        }
      >
        <span
          aria-hidden
          className="pointer-events-none absolute inset-y-0 left-0 bg-dusk/70"
          style={{ width: grip.inside || 2 }}
        />
        {booking.overlay && (
          <span aria-hidden className="pointer-events-none absolute inset-x-0 top-0 h-[3px] bg-lamp" />
        )}
        <End part="start" grip={grip} />
        {words !== '' && (
          <span className={`pointer-events-none flex items-center gap-1 px-2.5 ${NAME}`}>
            {mark && <Mark />}
            {words}
          </span>
        )}
        {strip && (
          <span
            aria-hidden
            className="pointer-events-none h-full min-w-0 flex-1 border-l border-dusk/40 bg-[auto_100%] bg-repeat-x"
            style={{ backgroundImage: `url("${picture}")` }}
          />
        )}
        {mark && (
          <span
            aria-hidden
            title={mark.finding.sentence}
            className="pointer-events-none absolute bottom-0 h-1 w-2 bg-brick"
            style={{ left: Math.max(0, scale.x(mark.at) - left - 1) }}
          />
        )}
        <End part="end" grip={grip} />
      </button>
      {words === '' && (room > NAMED_FROM || mark) && (
        // The line under it leads from the bar to its name.
        <span
          aria-hidden
          className={`pointer-events-none absolute flex items-center gap-1 border-b whitespace-nowrap ${NAME} ${booking.onHold ? 'border-faint/50 text-faint' : 'border-dusk/50'}`}
          style={{ left: right, bottom: BOTTOM, height: BAR_HEIGHT }}
        >
          {mark && <Mark />}
          {room > NAMED_FROM && (
            <span className="px-1">{fitted(called, Math.min(room, WIDEST_NAME) - (mark ? MARK_ROOM : 0))}</span>
          )}
        </span>
      )}
    </>
  );
});

/** Says that there is something to look at. */
const Mark = () => (
  <span aria-hidden className="bg-brick px-[3px] font-code text-[10px] leading-[13px] text-paper">
    !
  </span>
);

/** Where an end is pulled. Outside a bar it exists only while the pointer is on the bar, so that names beside it can be pressed as usual. */
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
