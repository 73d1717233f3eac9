import { enlarged, type Fit, type Screen, type ShownMedia } from '@/core';

/** How a file stands on screens of one size. */
export interface Standing {
  readonly width: number;
  readonly height: number;
  readonly screens: number;
  readonly fit: Fit;
  /** Share of the screen that stays empty, 0 to 1. */
  readonly bars: number;
  /** Share of the picture that is out of sight, 0 to 1. */
  readonly cut: number;
  /** How much each pixel is enlarged (over 1) or reduced (under 1); where it is stretched, on the side where it is more. */
  readonly scale: number;
  /** How much more one side is enlarged than the other; 1 where it keeps its shape. */
  readonly stretched: number;
}

/** A share that nobody sees. */
const NOTHING = 0.005;
const seen = (share: number) => (share < NOTHING ? 0 : share);

type Size = Pick<ShownMedia, 'width' | 'height'>;

/** How a file stands on each size of screens, the commonest first. */
export function standings(media: Size, screens: readonly Screen[], fit: Fit = 'whole'): Standing[] {
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

function standingOf(media: Size, size: Size, fit: Fit): Pick<Standing, 'bars' | 'cut' | 'scale' | 'stretched'> {
  const scale = enlarged(media, size, fit);
  if (fit !== 'stretch') return shapely(media, size, scale);
  const [x, y] = [size.width / media.width, size.height / media.height];
  return { bars: 0, cut: 0, scale, stretched: Math.max(x, y) / Math.min(x, y) };
}

/** What keeps its shape: what of the screen it leaves empty, and what of it is beyond the screen. */
function shapely(media: Size, size: Size, scale: number) {
  const [width, height] = [media.width * scale, media.height * scale];
  const visible = Math.min(width, size.width) * Math.min(height, size.height);
  return {
    bars: seen(1 - visible / (size.width * size.height)),
    cut: seen(1 - visible / (width * height)),
    scale,
    stretched: 1,
  };
}

/** How it stands in words: "native", "31 % bars, enlarged 2.0 times". */
export function standingWords({ scale, bars, cut, stretched }: Omit<Standing, 'width' | 'height' | 'screens'>): string {
  const percent = (share: number) => `${Math.max(1, Math.round(share * 100))} %`;
  const parts = [
    bars > 0 ? `${percent(bars)} bars` : '',
    cut > 0 ? `${percent(cut)} cut off` : '',
    stretched > 1.02 ? `stretched ${stretched.toFixed(1)} times` : '',
    scale > 1.02 ? `enlarged ${scale.toFixed(1)} times` : scale < 0.98 ? `reduced to ${percent(scale)}` : '',
  ].filter((part) => part !== '');
  return parts.join(', ') || 'native';
}
