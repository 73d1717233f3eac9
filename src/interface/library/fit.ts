import type { Media, Screen } from '@/core';

/** How a file looks on screens of one size: pixel for pixel, with bars beside it, or enlarged. Nothing is ever stretched. */
export interface Fit {
  readonly width: number;
  readonly height: number;
  readonly screens: number;
  /** Share of the screen that stays empty, 0 to 1. */
  readonly bars: number;
  /** How much each pixel is enlarged (over 1) or reduced (under 1). */
  readonly scale: number;
}

/** How a file fits the screens, by their sizes, the commonest first. */
export function fits(media: Pick<Media, 'width' | 'height'>, screens: readonly Screen[]): Fit[] {
  const sizes = new Map<string, { width: number; height: number; screens: number }>();
  for (const { width, height } of screens) {
    const size = sizes.get(`${width}x${height}`) ?? { width, height, screens: 0 };
    size.screens++;
    sizes.set(`${width}x${height}`, size);
  }
  return [...sizes.values()]
    .map((size) => {
      const scale = Math.min(size.width / media.width, size.height / media.height);
      const bars = 1 - (media.width * scale * media.height * scale) / (size.width * size.height);
      return { ...size, scale, bars: bars < 0.005 ? 0 : bars };
    })
    .sort((a, b) => b.screens - a.screens);
}

/** A fit in words: "native", "31 % bars, enlarged 2.0 times". */
export function fitWords({ scale, bars }: Fit): string {
  const parts = [
    bars > 0 ? `${Math.round(bars * 100)} % bars` : '',
    scale > 1.02 ? `enlarged ${scale.toFixed(1)} times` : scale < 0.98 ? `reduced to ${Math.round(scale * 100)} %` : '',
  ].filter((part) => part !== '');
  return parts.join(', ') || 'native';
}
