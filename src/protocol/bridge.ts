/** What goes between a player's page and the bridge to its device, over loopback. */

/** What a bridge can do for its player: commands, switching the display, and taking pictures of all that is seen. */
export type BridgeAbility = 'restart' | 'volume' | 'brightness' | 'turn' | 'input' | 'power' | 'picture';

/** What the device measures; what it can't is absent. */
export interface Measured {
  readonly temperature?: number;
  /** The share that is in use, 0 to 1. */
  readonly memory?: number;
  /** Work that waits, for each processor: above 1 it is too much. */
  readonly load?: number;
  readonly display?: 'on' | 'off';
  readonly brightness?: number;
  /** The id of the input that the display shows. */
  readonly input?: string;
  readonly serial?: string;
  readonly firmware?: string;
}

/** What a bridge tells its player. */
export interface BridgeState {
  readonly can: readonly BridgeAbility[];
  readonly measured: Measured;
}

/** A step of the way from the device to its server. */
export interface WayStep {
  readonly name: 'Name' | 'Address' | 'TLS';
  readonly isOk: boolean;
  /** A sentence that can be read out over the telephone. */
  readonly words: string;
}
