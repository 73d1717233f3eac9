/** RFC 5545 section 3.8.1.9 counts from 1, the highest, to 9, the lowest; 5 is medium, 0 undefined. Ours are 5, the highest, to 1. */

/** 5, 4, 3, 2, 1 are 1, 3, 5, 7, 9. */
export const icalendarPriority = (priority: number): number => 11 - 2 * priority;

/** The nearest of ours, the higher where two are as near; undefined is 3, as everywhere. */
export function planPriority(priority: number): number {
  return priority < 1 || priority > 9 ? 3 : Math.ceil((11 - priority) / 2);
}
