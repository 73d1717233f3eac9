import type { Ability, Command } from '@/core/commands';
import type { Report } from '@/protocol/schemas';

/** What a player asks of its device. A page has one that does what a page can; simulated players have one with faults. */
export interface Hardware {
  /** What it can do besides playing. Asked at each report and before each command: a display may be plugged in later. */
  abilities(): readonly Ability[];
  /** What it measures, and how it is set. */
  state(): Report['hardware'];
  /**
   * Carries out a command that `abilities` allows. Resolves when it is done; may never resolve if it ends the player. Throws an error
   * with a sentence for people if it fails.
   */
  carryOut(command: Command): Promise<void>;
  /**
   * Switches the display on or off, by the plan. Present if the device may be able to; `abilities` then has `power` while it is. Throws an
   * error with a sentence for people if it fails.
   */
  readonly setPower?: (isOn: boolean) => Promise<void>;
  /** Takes a picture of what is seen. Present if the device can. Throws an error with a sentence for people if it fails. */
  readonly picture?: () => Promise<Picture>;
}

/** A picture of what is seen. */
export interface Picture {
  /** JPEG, PNG or WebP. */
  readonly bytes: Uint8Array<ArrayBuffer>;
  /** Whether something of the player's own lies over the program: the screen's name, or the word DRILL. */
  readonly isCovered: boolean;
}

/** How a person set a screen from afar. It stays so over restarts. */
export interface Settings {
  /** Black and silent until a person says otherwise. */
  readonly blank: boolean;
  /** 0 to 100. */
  readonly volume: number;
  /** 0 to 100. */
  readonly brightness: number;
  /** Clockwise: 0, 90, 180 or 270. */
  readonly degrees: number;
  /** How much smaller everything is drawn, since the display cuts its edges off: percent of the display, at each side. */
  readonly edges: Edges;
}

export interface Edges {
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
  readonly left: number;
}

/** No display cuts off more than this, in percent at each side. */
export const EDGES_AT_MOST = 15;
export const NO_EDGES: Edges = { top: 0, right: 0, bottom: 0, left: 0 };

export const AS_DELIVERED: Settings = { blank: false, volume: 100, brightness: 100, degrees: 0, edges: NO_EDGES };

/** The settings after a command; the same object if it sets nothing. */
export function settingsAfter(before: Settings, { kind, percent, degrees }: Command): Settings {
  switch (kind) {
    case 'blank':
      return { ...before, blank: true };
    case 'show':
      return { ...before, blank: false };
    case 'volume':
      return { ...before, volume: percent ?? before.volume };
    case 'brightness':
      return { ...before, brightness: percent ?? before.brightness };
    case 'turn':
      return { ...before, degrees: degrees ?? before.degrees };
    case 'edges': {
      const all = Math.max(0, Math.min(EDGES_AT_MOST, percent ?? 0));
      return { ...before, edges: { top: all, right: all, bottom: all, left: all } };
    }
    default:
      return before;
  }
}
