import type { Frame, Size } from '@/core/layouts';

/** How zones are arranged, drawn small: a line around each. */
export function ArrangementPicture({
  size: { width, height },
  zones,
  className = '',
}: {
  size: Size;
  zones: readonly Frame[];
  className?: string;
}) {
  const line = Math.max(width, height) / 60;
  return (
    <svg viewBox={`0 0 ${width} ${height}`} aria-hidden className={className}>
      {zones.map((zone, i) => (
        <rect
          key={i}
          x={zone.x + line / 2}
          y={zone.y + line / 2}
          width={Math.max(0, zone.width - line)}
          height={Math.max(0, zone.height - line)}
          className="fill-sheet stroke-dusk"
          strokeWidth={line}
        />
      ))}
    </svg>
  );
}
