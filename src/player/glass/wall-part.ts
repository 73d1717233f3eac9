import type { Target } from '@/protocol/schemas';

type Part = NonNullable<Target['screen']['part']>;

/** Lays the stage out so that this display shows its part of a wall's picture; the whole picture on a screen that isn't a wall. */
export function showPart(stage: HTMLElement, part: Part | undefined): void {
  const { left, top, width, height } = part ?? { left: 0, top: 0, width: 1, height: 1 };
  Object.assign(stage.style, {
    left: `${(-100 * left) / width}%`,
    top: `${(-100 * top) / height}%`,
    width: `${100 / width}%`,
    height: `${100 / height}%`,
  });
}
