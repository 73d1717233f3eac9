import { never, type LoopItem } from '@/core/playing';

/** How the picture before gives way to the one that comes, within the time of the one that comes. */

export interface Running {
  /** When it is over by itself; rejects where it was ended. */
  readonly over: Promise<unknown>;
  /** Ends it at once, and leaves both layers as if it had never started. */
  end(): void;
}

type Transition = NonNullable<LoopItem['transition']>;

/** What moves: how the one that comes comes, and how the one that goes goes, which else stays under it. */
interface Movement {
  readonly comes: Keyframe[];
  readonly goes?: Keyframe[];
}

function movementOf(kind: Transition['kind']): Movement | null {
  switch (kind) {
    case 'cut':
      return null;
    case 'fade':
      return { comes: [{ opacity: 0 }, { opacity: 1 }] };
    case 'slide':
      return {
        comes: [{ translate: '100% 0' }, { translate: '0 0' }],
        goes: [{ translate: '0 0' }, { translate: '-100% 0' }],
      };
    case 'wipe':
      return { comes: [{ clipPath: 'inset(0 0 0 100%)' }, { clipPath: 'inset(0 0 0 0)' }] };
    default:
      return never(kind);
  }
}

/**
 * Lets `after` come over `before`, `turnMs` milliseconds into its turn: screens that join late are in step. Null for a cut, and where it is
 * over by then.
 */
export function begin(
  transition: Transition | undefined,
  before: HTMLElement,
  after: HTMLElement,
  turnMs: number,
): Running | null {
  const movement = transition && movementOf(transition.kind);
  if (!movement || turnMs >= transition.ms) return null;
  const animations = [after.animate(movement.comes, transition.ms)];
  if (movement.goes) animations.push(before.animate(movement.goes, { duration: transition.ms, fill: 'forwards' }));
  for (const animation of animations) animation.currentTime = Math.max(0, turnMs);
  after.style.zIndex = '1';
  return {
    over: animations[0]?.finished ?? Promise.resolve(),
    end: () => {
      after.style.zIndex = '';
      for (const animation of animations) animation.cancel();
    },
  };
}
