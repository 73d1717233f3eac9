/** The library as one left it, so that one comes back to what one has found. */
let place = '/library';

export const keepPlace = (path: string): void => void (place = path);
export const lastPlace = (): string => place;
