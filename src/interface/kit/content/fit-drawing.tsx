import { drawnSize, type Size } from '@/core/forecast';
import type { Fit, ShownMedia } from '@/core/plan';

/** A screen with a file on it, as a player puts it there. `longest` is the longer side of the drawing, in pixels. */
export function FitDrawing({
  file,
  src,
  screen,
  fit,
  longest,
}: {
  file: ShownMedia;
  src: string | undefined;
  screen: Size;
  fit: Fit;
  longest: number;
}) {
  const scale = longest / Math.max(screen.width, screen.height);
  const box = { width: Math.max(24, screen.width * scale), height: Math.max(16, screen.height * scale) };
  const [x, y] = file.focus ?? [0.5, 0.5];
  const drawn = drawnSize(file, screen, fit);
  const [w, h] = [drawn.width * scale, drawn.height * scale];
  return (
    <div className="relative shrink-0 overflow-hidden bg-[#000] outline-1 outline-rule" style={box}>
      {src && (
        <img
          src={src}
          alt=""
          className="absolute max-w-none"
          // Where there is room beside it, it stands by its focus as a browser's object-position has it.
          style={{ width: w, height: h, left: (box.width - w) * x, top: (box.height - h) * y }}
        />
      )}
    </div>
  );
}
