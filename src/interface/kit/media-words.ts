import type { Fit, MediaKind } from '@/core';

/** What people call one file of a kind. */
export const MEDIA_WORDS: Record<MediaKind, string> = { image: 'picture', video: 'film', sound: 'sound' };

/** How a picture of another shape stands on a screen. */
export const FIT_WORDS: Record<Fit, string> = {
  whole: 'whole, with bars',
  fill: 'filling, cut to shape',
  stretch: 'stretched to shape',
  exact: 'pixel for pixel',
};
