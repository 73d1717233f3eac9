import { standingOf, type Size, type Standing } from '@/core/forecast';
import type { Fit, Screen } from '@/core/plan';

/** How a file fits screens of one size. */
export interface OnSize extends Standing, Size {
  readonly screens: number;
  readonly fit: Fit;
}

/** How a file fits each size of screens, the commonest first. */
export function standings(media: Size, screens: readonly Screen[], fit: Fit = 'whole'): OnSize[] {
  const sizes = new Map<string, { width: number; height: number; screens: number }>();
  for (const { width, height } of screens) {
    const size = sizes.get(`${width}x${height}`) ?? { width, height, screens: 0 };
    size.screens++;
    sizes.set(`${width}x${height}`, size);
  }
  return [...sizes.values()]
    .map((size) => ({ ...size, fit, ...standingOf(media, size, fit) }))
    .sort((a, b) => b.screens - a.screens);
}

/** How it fits, in words: "native", "31 % bars, enlarged 2.0 times". */
export function standingWords({ scale, bars, cut, stretched }: Standing): string {
  const percent = (share: number) => `${Math.max(1, Math.round(share * 100))} %`;
  const parts = [
    bars > 0 ? `${percent(bars)} bars` : '',
    cut > 0 ? `${percent(cut)} cut off` : '',
    stretched > 1.02 ? `stretched ${stretched.toFixed(1)} times` : '',
    scale > 1.02 ? `enlarged ${scale.toFixed(1)} times` : scale < 0.98 ? `reduced to ${percent(scale)}` : '',
  ].filter((part) => part !== '');
  return parts.join(', ') || 'native';
}
