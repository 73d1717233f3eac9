import type { Board } from '@/core/forecast';
import { CardWords } from './card-words';
import { FIT_CLASSES, Thumb } from './thumb';

/** What a layout, a bulletin or an input shows at one instant, as large as it fits into its box, which says its place and size. */
export function BoardPicture({
  board: { width, height, background, parts },
  thumbnail,
  isAbove = false,
  className = '',
}: {
  board: Board;
  /** Whether it is drawn over something else: between its parts that is seen. */
  isAbove?: boolean;
  thumbnail: (media: string) => string | undefined;
  className?: string;
}) {
  const share = (part: number, whole: number) => `${(100 * part) / whole}%`;
  return (
    <span aria-hidden className={`flex items-center justify-center overflow-hidden [container-type:size] ${className}`}>
      <span
        className="relative block shrink-0"
        style={{
          width: `min(100cqw, calc(100cqh * ${width} / ${height}))`,
          height: `min(100cqh, calc(100cqw * ${height} / ${width}))`,
          background: isAbove ? undefined : (background ?? '#000'),
        }}
      >
        {parts.map((part, i) => (
          <span
            key={i}
            className="absolute flex items-center justify-center overflow-hidden"
            style={{
              left: share(part.x, width),
              top: share(part.y, height),
              width: share(part.width, width),
              height: share(part.height, height),
            }}
          >
            {part.media !== undefined ? (
              <Thumb
                src={thumbnail(part.media)}
                alt=""
                className={`h-full w-full !bg-transparent ${FIT_CLASSES[part.fit ?? 'whole']}`}
              />
            ) : (
              part.name !== undefined && <CardWords words={part.name} />
            )}
          </span>
        ))}
      </span>
    </span>
  );
}
