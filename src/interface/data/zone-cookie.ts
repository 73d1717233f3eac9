/** Carries the browser's time zone to the server, so that both write the same times. */
export const ZONE_COOKIE = 'lanternpost-zone';
