import * as z from 'zod';
import { durationWords } from './say';

/** How what is shown looks in its turn: what items of playlists and zones of layouts say. */

/** How the picture before gives way to this one; the time lies within this one's. */
export const TRANSITIONS = ['cut', 'fade', 'slide', 'wipe'] as const;
export const LONGEST_TRANSITION_MS = 5000;
export const transitionSchema = z.strictObject({
  kind: z.enum(TRANSITIONS, 'A transition is a cut, fade, slide or wipe.'),
  ms: z
    .int('A transition lasts whole milliseconds.')
    .min(0, 'A transition lasts 0 milliseconds or more.')
    .max(LONGEST_TRANSITION_MS, 'A transition lasts at most 5 seconds.'),
});

/** How a picture of another shape is placed on a screen: whole within it, filling it, stretched to its shape, or pixel for pixel. */
export const FITS = ['whole', 'fill', 'stretch', 'exact'] as const;

export type Transition = z.infer<typeof transitionSchema>;
export type Fit = (typeof FITS)[number];

/** A transition in words: "fade 0.6 s". */
export const transitionWords = ({ kind, ms }: Transition): string =>
  kind === 'cut' || ms === 0 ? 'cut' : `${kind} ${durationWords(ms)}`;
