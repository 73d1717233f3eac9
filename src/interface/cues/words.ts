import { durationWords } from '@/core/plan';
import { counted } from '@/interface/kit/words/format';

export const screensWords = (screens: number): string => counted(screens, 'screen');

/** How long something lasts, to the second. */
export const lastsWords = (ms: number): string => durationWords(Math.max(1000, Math.round(ms / 1000) * 1000));
