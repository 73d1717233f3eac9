import type { Screen } from '@/core/plan';

const PRIVATE = 'private';
/** How often pictures are taken of a screen, in minutes. */
export const PICTURES = [
  ['', 'When someone asks for one'],
  ['1', 'Every minute'],
  ['5', 'Every 5 minutes'],
  ['15', 'Every 15 minutes'],
  ['60', 'Every hour'],
  [PRIVATE, 'Never: this screen is private'],
] as const;
/** Whether a screen has another time between its pictures than the list offers. */
export const isOtherPictures = (value: string) => PICTURES.every(([known]) => known !== value);
/** The choice that a screen has. */
export const picturesValue = (screen: Screen | null) =>
  screen?.private ? PRIVATE : String(screen?.glimpseMinutes ?? '');
/** What of a screen a choice sets. */
export const picturesOf = (value: string) => ({
  private: value === PRIVATE ? true : undefined,
  glimpseMinutes: value === '' || value === PRIVATE ? undefined : Number(value),
});
