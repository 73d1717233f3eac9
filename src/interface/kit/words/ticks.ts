/** Hours apart that people count in. */
const STEPS = [1, 2, 3, 4, 6, 12];

/** What a label such as "14:00" or "Thu 26 Nov" needs beside itself, in pixels. */
const LABEL_ROOM = 58;

/**
 * How many hours lie between labelled ones, so that labels have `room` pixels each: `hours` are shown on `width` pixels. 24 where nothing
 * less has room.
 */
export const tickHours = (width: number, hours: number, room = LABEL_ROOM): number =>
  STEPS.find((step) => (step / hours) * width >= room) ?? 24;
