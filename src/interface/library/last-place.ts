/** The library's address as you left it, so that you come back to the same search. */
let place = '/library';

export const keepPlace = (path: string): void => void (place = path);
export const lastPlace = (): string => place;
