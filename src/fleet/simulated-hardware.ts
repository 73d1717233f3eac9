import { ABILITIES, type Ability, type Command } from '@/core/commands';
import { AS_DELIVERED, settingsAfter, type Hardware, type Settings } from '@/player/hardware/hardware';

/** What is wrong with a simulated device: nothing, no brightness control, or a restart that it says it can do and can't. */
export type DeviceFault = 'none' | 'no brightness' | 'restart fails';

/** A device that is not there: it can do everything, but for its fault, and measures what a small box would. */
export class SimulatedHardware implements Hardware {
  private settings: Settings = AS_DELIVERED;

  /** `restart` ends the player and starts it again, as its device would. */
  constructor(
    private readonly fault: DeviceFault,
    private readonly restart: () => void,
  ) {}

  abilities(): readonly Ability[] {
    return this.fault === 'no brightness' ? ABILITIES.filter((one) => one !== 'brightness') : ABILITIES;
  }

  state() {
    return { temperature: 41, memory: 0.4, load: 0.2, ...this.settings };
  }

  async carryOut(command: Command): Promise<void> {
    if (command.kind === 'restart' && this.fault === 'restart fails')
      throw new Error('The device didn’t restart. Switch it off and on at the plug.');
    if (command.kind === 'restart' || command.kind === 'reload' || command.kind === 'update') {
      this.restart();
      // This life of the player ends here.
      return new Promise(() => undefined);
    }
    this.settings = settingsAfter(this.settings, command);
  }
}
