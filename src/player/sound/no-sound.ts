/** Reported when the browser allows no sound. */
export const NO_SOUND =
  'This browser allows no sound until the page is touched. Allow sound for this page in its settings, or start it with sound allowed.';

export const isRefusedSound = (error: unknown): boolean => error instanceof Error && error.name === 'NotAllowedError';
