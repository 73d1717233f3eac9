import { REDUCED_BELOW } from '@/core/profiles';

/** How large a file is needed on a screen, in pixels. */

export interface Size {
  readonly width: number;
  readonly height: number;
}

/**
 * The size in which a screen needs a file: so large that it fills the screen, whichever side is cut, and never enlarged. Null where that is
 * nearly its own. Sides of films are even.
 */
export function sizeFor(file: Size & { readonly kind: 'image' | 'video' }, screen: Size): Size | null {
  const scale = Math.max(screen.width / file.width, screen.height / file.height);
  if (scale > REDUCED_BELOW) return null;
  const step = file.kind === 'video' ? 2 : 1;
  const side = (pixels: number) => Math.max(step, Math.round((pixels * scale) / step) * step);
  return { width: side(file.width), height: side(file.height) };
}

/** The sizes in which screens need a file, each once. */
export function sizesFor(file: Size & { readonly kind: 'image' | 'video' }, screens: readonly Size[]): Size[] {
  const sizes = new Map<string, Size>();
  for (const screen of screens) {
    const size = sizeFor(file, screen);
    if (size) sizes.set(`${size.width}x${size.height}`, size);
  }
  return [...sizes.values()];
}
