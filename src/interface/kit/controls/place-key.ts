/**
 * The key of a choice in a list that changes as you type, by its place and its own key. Headless UI looks at the order of choices when one
 * is added, and takes the first for the one that Enter means: a choice that only moves must be a new one, or Enter means another than the
 * first that is seen.
 */
export const placeKey = (place: number, key: string): string => `${place} ${key}`;
