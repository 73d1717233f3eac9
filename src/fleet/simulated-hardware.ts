import { ABILITIES, PLAYER_INPUT, type Ability, type Command } from '@/core/commands';
import { AS_DELIVERED, settingsAfter, type Hardware, type Settings } from '@/player/hardware/hardware';

/**
 * What is wrong with a simulated device: nothing; no brightness control; a restart that it says it can do and can't; a display
 * that doesn't switch off; a display that is black, or was switched to another input by a person, while the player thinks that all is well.
 */
export type DeviceFault = 'none' | 'no brightness' | 'restart fails' | 'black glass' | 'wrong input' | 'stays on';

/** The inputs beside the player's, with the colour that is seen there. */
const OTHER_INPUTS: Readonly<Record<string, string>> = { 'hdmi-1': '#1d4ed8', 'hdmi-2': '#7c2d12' };

/** A device that is not there: it can do everything, but for its fault, and measures what a small box would. */
export class SimulatedHardware implements Hardware {
  private settings: Settings = AS_DELIVERED;
  private isOn = true;
  private input: string;

  /** `restart` ends the player and starts it again, as its device would. */
  constructor(
    private readonly fault: DeviceFault,
    private readonly restart: () => void,
    /** Draws what the player shows; a colour: that alone. */
    private readonly draw: (colour?: string) => Promise<Uint8Array<ArrayBuffer>>,
  ) {
    this.input = fault === 'wrong input' ? 'hdmi-1' : PLAYER_INPUT;
  }

  abilities(): readonly Ability[] {
    return ABILITIES.filter((one) => one !== 'glimpse' && !(one === 'brightness' && this.fault === 'no brightness'));
  }

  state() {
    return {
      display: this.isOn ? ('on' as const) : ('off' as const),
      input: this.input,
      temperature: 41,
      memory: 0.4,
      load: 0.2,
      ...this.settings,
      edges: this.settings.edges.top,
    };
  }

  readonly setPower = async (isOn: boolean) => {
    if (!isOn && this.fault === 'stays on')
      throw new Error('The display didn’t switch off. Check that it may be controlled by its cable or network.');
    this.isOn = isOn;
  };

  readonly picture = async () => {
    const isBlack = !this.isOn || this.settings.blank || this.fault === 'black glass';
    const colour = isBlack ? '#000' : OTHER_INPUTS[this.input];
    return { bytes: await this.draw(colour), isCovered: false };
  };

  async carryOut(command: Command): Promise<void> {
    if (command.kind === 'restart' && this.fault === 'restart fails')
      throw new Error('The device didn’t restart. Switch it off and on at the plug.');
    if (command.kind === 'restart' || command.kind === 'reload' || command.kind === 'update') {
      this.restart();
      // This life of the player ends here.
      return new Promise(() => undefined);
    }
    if (command.kind === 'input') {
      const { input = '' } = command;
      const known = [PLAYER_INPUT, ...Object.keys(OTHER_INPUTS)];
      if (!known.includes(input))
        throw new Error(`This display has no input “${input}”. Its inputs are called ${known.join(', ')}.`);
      this.input = input;
    }
    this.settings = settingsAfter(this.settings, command);
  }
}
