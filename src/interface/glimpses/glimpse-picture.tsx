'use client';

import { CircleCheck, TriangleAlert } from 'lucide-react';
import { FIELDS } from '@/core/glimpses';
import { partName, partsOf, shapeOf, type Wall } from '@/core/walls';
import type { Glimpse } from '@/services/glimpses';
import { useMoment } from '@/interface/data/moment';
import { VERDICT_WORDS } from './words';

/** A picture of a screen as it was, or as it was planned for the same instant. */
export function GlimpsePicture({
  glimpse,
  which,
  alt,
  className = '',
}: {
  glimpse: Pick<Glimpse, 'id'>;
  which: 'seen' | 'planned';
  alt: string;
  className?: string;
}) {
  return (
    <img
      src={`/api/glimpses/${glimpse.id}${which === 'planned' ? '?which=planned' : ''}`}
      alt={alt}
      decoding="async"
      draggable={false}
      className={`bg-glass object-contain ${className}`}
    />
  );
}

/**
 * What a screen showed, or what was planned for the same instant: one picture, or those of a wall's displays as they hang. A display without a picture
 * is hatched.
 */
export function ScreenPicture({
  glimpses,
  wall,
  shape,
  which,
  alt,
  className = '',
}: {
  glimpses: readonly Glimpse[];
  /** Width by height of the screen: marks lie over its picture, not over the room around it. */
  shape: number;
  wall: Wall | undefined;
  which: 'seen' | 'planned';
  alt: string;
  className?: string;
}) {
  const there = (glimpse: Glimpse | undefined) =>
    glimpse && (which === 'seen' || glimpse.hasPlanned) ? glimpse : undefined;
  if (!wall) {
    const glimpse = there(glimpses[0]);
    return glimpse ? (
      <Marked glimpse={glimpse} which={which} alt={alt} shape={shape} className={className} />
    ) : (
      <div className={`hatch bg-well ${className}`} />
    );
  }
  const whole = shapeOf(wall, { width: wall.widthMm, height: wall.heightMm });
  return (
    <div className={`flex items-center justify-center bg-glass ${className}`}>
      <div
        className="relative max-h-full max-w-full"
        style={{ aspectRatio: `${whole.width} / ${whole.height}`, height: '100%' }}
      >
        {partsOf(wall).map((part) => {
          const glimpse = there(glimpses.find((one) => one.part === part.number));
          const name = `${alt}, ${partName(part)}`;
          return (
            <div
              key={part.number}
              className={`absolute overflow-hidden ${glimpse ? '' : 'hatch bg-well'}`}
              style={{
                ...{ left: `${part.left * 100}%`, top: `${part.top * 100}%` },
                ...{ width: `${part.width * 100}%`, height: `${part.height * 100}%` },
              }}
            >
              {glimpse && (
                <Marked
                  glimpse={glimpse}
                  which={which}
                  alt={name}
                  shape={wall.widthMm / wall.heightMm}
                  className="h-full w-full"
                />
              )}
            </div>
          );
        })}
      </div>
    </div>
  );
}

/** A picture, with a frame around each field in which what was seen differs from what was planned. */
function Marked({
  glimpse,
  which,
  alt,
  shape,
  className,
}: {
  glimpse: Glimpse;
  which: 'seen' | 'planned';
  alt: string;
  shape: number;
  className: string;
}) {
  const different = which === 'seen' ? new Set(glimpse.different) : new Set<number>();
  // From a field that differs to one that doesn't, there is an edge.
  const edges = [...different].flatMap((field) => {
    const [x, y] = [field % FIELDS, Math.floor(field / FIELDS)];
    const is = (dx: number, dy: number) => x + dx >= 0 && x + dx < FIELDS && different.has((y + dy) * FIELDS + x + dx);
    return [
      ...(is(0, -1) ? [] : [`M${x} ${y}h1`]),
      ...(is(0, 1) ? [] : [`M${x} ${y + 1}h1`]),
      ...(is(-1, 0) ? [] : [`M${x} ${y}v1`]),
      ...(is(1, 0) ? [] : [`M${x + 1} ${y}v1`]),
    ];
  });
  return (
    <div className={`relative bg-glass ${className}`}>
      <GlimpsePicture glimpse={glimpse} which={which} alt={alt} className="h-full w-full" />
      {edges.length > 0 && (
        <svg
          viewBox={`0 0 ${FIELDS * shape} ${FIELDS}`}
          className="absolute inset-0 h-full w-full"
          role="img"
          aria-label="Marks where it differs from what was planned"
        >
          <path
            d={edges.join('')}
            transform={`scale(${shape} 1)`}
            className="fill-none stroke-lamp"
            strokeWidth={2}
            vectorEffect="non-scaling-stroke"
          />
        </svg>
      )}
    </div>
  );
}

/** Of a wall's pictures the one that a person should look at: a wrong one, else the newest. */
export function worstOf(glimpses: readonly Glimpse[]): Glimpse | undefined {
  const isWrong = ({ verdict }: Glimpse) => verdict !== null && VERDICT_WORDS[verdict].isProblem;
  const newest = [...glimpses].sort((a, b) => Date.parse(b.takenAt) - Date.parse(a.takenAt));
  return newest.find(isWrong) ?? newest[0];
}

/** A picture that isn't compared by then has nothing to be compared with. */
const COMPARED_WITHIN_MS = 30_000;

/** How a picture compares with what is planned, in words, with a mark of its own shape. */
export function VerdictWords({ glimpse: { verdict, takenAt } }: { glimpse: Pick<Glimpse, 'verdict' | 'takenAt'> }) {
  const { now } = useMoment();
  if (verdict === null)
    return (
      <span className="text-faint">
        {now - Date.parse(takenAt) < COMPARED_WITHIN_MS ? 'Comparing…' : 'Not compared'}
      </span>
    );
  const { text, isProblem } = VERDICT_WORDS[verdict];
  const Mark = isProblem ? TriangleAlert : CircleCheck;
  return (
    <span className={`inline-flex items-center gap-1 ${isProblem ? 'text-brick' : ''}`}>
      <Mark size={15} aria-hidden className={isProblem ? '' : 'text-faint'} />
      {text}
    </span>
  );
}
