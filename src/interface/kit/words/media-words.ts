import type { Fit, MediaKind } from '@/core/plan';

/** What people call one file of a kind. */
export const MEDIA_WORDS: Record<MediaKind, string> = { image: 'picture', video: 'video', sound: 'sound' };

/** How a picture of another shape is placed on a screen. */
export const FIT_WORDS: Record<Fit, string> = {
  whole: 'whole, with bars',
  fill: 'filling the screen, cropped',
  stretch: 'stretched to fit',
  exact: 'pixel for pixel',
};
