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
}

export const AS_DELIVERED: Settings = { blank: false, volume: 100, brightness: 100, degrees: 0 };

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
    default:
      return before;
  }
}
