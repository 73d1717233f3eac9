/** What is seen of a film: where it stands and its length, in milliseconds of its own. */
export interface FilmPosition {
  readonly atMs: number;
  readonly lengthMs: number;
}

/** Something that is drawn and can be seen at once: one file of a kind, made ready by the drawer of that kind. */
export interface Drawn {
  readonly element: HTMLElement;
  /** Whether it is worth keeping when its turn is over, since it takes long to make it ready. */
  readonly isKept: boolean;
  /** It comes to be seen: from a moment of its own on, as loud as is said, over 0 to 1. Throws where it can't. */
  begin(offsetMs: () => number, volume: number): Promise<void>;
  /** Another comes to be seen over it. */
  hush(): void;
  /** It is kept, at rest. */
  rest(): void;
  /** Makes it ready for another turn, from a moment of its own on. Throws where it can't, or when that is given up. */
  again(fromMs: number, given?: AbortSignal): Promise<void>;
  /** Where it stands; null for what doesn't move. */
  position(): FilmPosition | null;
  /** Gives back what it holds: its bytes, and what was decoded of them. */
  free(): void;
}

/** Makes a file ready, by its address in this page. Throws where it can't be shown here, or when that is given up. */
export type Drawer = (url: string, fromMs: number, given?: AbortSignal) => Promise<Drawn>;

/** Something that is seen as it is: it has no beginning, no sound and no place where it stands. */
export const still = (element: HTMLElement, free: () => void): Drawn => ({
  element,
  isKept: false,
  begin: () => Promise.resolve(),
  hush: () => undefined,
  rest: () => undefined,
  again: () => Promise.resolve(),
  position: () => null,
  free,
});
