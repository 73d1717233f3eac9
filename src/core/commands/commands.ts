import { DAY, HOUR, MINUTE, SECOND } from '../instant';
import { socketName } from './sockets';

/**
 * Commands: what a person has a player do at once, beside what it shows. Pure and without schemas, so that players, services and pages
 * share one table. A command is kept for players that are away until it expires; each does it once, and says how that went.
 */

/** What a player must be able to do before it is offered a command. */
const FOR_COMMANDS = ['restart', 'volume', 'brightness', 'input', 'update', 'glimpse'] as const;
/** What a device may be able to do: for commands, and to switch its display off in lights-out. */
export const ABILITIES = [...FOR_COMMANDS, 'power'] as const;
export type Ability = (typeof ABILITIES)[number];

/** What goes with a command: a number, or the id of an input. */
export interface Amount {
  readonly field: 'percent' | 'degrees' | 'input';
  /** What it is called beside its field. */
  readonly label: string;
  /** The numbers that there are; absent: whole numbers from 0 to `most`. */
  readonly values?: readonly number[];
  /** Absent: 100. */
  readonly most?: number;
}

interface Described {
  /** On buttons and in lists. */
  readonly name: string;
  /** What happens on the screen, in one sentence. */
  readonly does: string;
  /** Whether what plays is out of sight for a while, or until another command. */
  readonly hides: boolean;
  /** Whether it deletes something, so that people are asked before. */
  readonly deletes?: boolean;
  /** What the player must be able to do; absent: every player can. */
  readonly needs?: (typeof FOR_COMMANDS)[number];
  readonly amount?: Amount;
}

const table = <K extends string>(kinds: Record<K, Described>): Readonly<Record<K, Described>> => kinds;

export const COMMANDS = table({
  identify: {
    name: 'Identify',
    does: 'Shows the screen’s name, site and number in large letters for 30 seconds.',
    hides: false,
  },
  glimpse: {
    name: 'Take a picture',
    does: 'Takes a picture of what the screen shows now, and compares it with what is planned.',
    hides: false,
    needs: 'glimpse',
  },
  reload: { name: 'Reload', does: 'Loads the player’s page again. What plays goes on within seconds.', hides: true },
  restart: {
    name: 'Restart',
    does: 'Restarts the device. The screen is off for a minute or two.',
    hides: true,
    needs: 'restart',
  },
  blank: { name: 'Blank', does: 'Makes the screen black and silent until you choose “Show again”.', hides: true },
  show: { name: 'Show again', does: 'Ends “Blank”: the screen shows what is planned.', hides: false },
  volume: {
    name: 'Volume',
    does: 'Sets how loud everything is, until you change it again.',
    hides: false,
    needs: 'volume',
    amount: { field: 'percent', label: 'Volume in percent' },
  },
  brightness: {
    name: 'Brightness',
    does: 'Sets how bright the display is, until you change it again.',
    hides: false,
    needs: 'brightness',
    amount: { field: 'percent', label: 'Brightness in percent' },
  },
  turn: {
    name: 'Turn',
    does: 'Turns the picture, for a display that is mounted on its side.',
    hides: false,
    amount: { field: 'degrees', label: 'Degrees clockwise', values: [0, 90, 180, 270] },
  },
  edges: {
    name: 'Edges',
    does: 'Draws everything smaller, for a display that cuts its edges off, and shows a test picture for a minute.',
    hides: false,
    amount: { field: 'percent', label: 'Percent of the picture, on each side', most: 15 },
  },
  input: {
    name: 'Switch input',
    does: 'Switches the display to another input, until you switch it back to the player.',
    hides: true,
    needs: 'input',
    amount: { field: 'input', label: 'Input' },
  },
  clear: {
    name: 'Clear the store',
    does: 'Deletes all files on the player. It downloads them again, and shows nothing until it has what is due.',
    hides: true,
    deletes: true,
  },
  update: {
    name: 'Update',
    does: 'Fetches the newest player software and starts it.',
    hides: true,
    needs: 'update',
  },
});

export type CommandKind = keyof typeof COMMANDS;
export const COMMAND_KINDS = Object.keys(COMMANDS) as CommandKind[];

/** A command as a player gets it. */
export interface Command {
  readonly id: string;
  /** A newer server may send kinds that a player doesn't know. */
  readonly kind: string;
  readonly percent?: number | undefined;
  readonly degrees?: number | undefined;
  /** The id of an input of the display. */
  readonly input?: string | undefined;
  /** With `identify`: the site’s name, and the screen’s number within it. */
  readonly site?: string | undefined;
  readonly number?: number | undefined;
  /** When to do it, by the server's clock: several screens may be spread over time. */
  readonly at: number;
  /** The player ignores the command from then on, by the server's clock. */
  readonly expires: number;
}

/** How a command went on one player. */
export interface Outcome {
  readonly id: string;
  /** `received`: it is here, and will be done at its time. */
  readonly state: 'received' | 'done' | 'failed';
  /** Why it failed, in a sentence. */
  readonly said?: string | undefined;
}

/** How long a command is kept for screens that are away, unless a person says otherwise. */
export const KEPT_MS = 10 * MINUTE;
export const KEPT_AT_LEAST_MS = 10 * SECOND;
export const KEPT_AT_MOST_MS = 7 * DAY;
/** Commands to several screens can be spread over so long at most. */
export const SPREAD_AT_MOST_MS = 12 * HOUR;

/** Why a player can't do a command, by what it reports to be able to do; null if it can. */
export function cannotDo(kind: string, can: readonly string[] | undefined): string | null {
  const known = Object.hasOwn(COMMANDS, kind) ? COMMANDS[kind as CommandKind] : null;
  if (!known) return 'This player’s software is too old for this command. Update it.';
  const { needs } = known;
  return needs === undefined || can?.includes(needs) ? null : CANNOT[needs];
}

const CANNOT: Readonly<Record<(typeof FOR_COMMANDS)[number], string>> = {
  restart: 'This player can’t restart its device.',
  volume: 'This display has no volume control.',
  brightness: 'This display has no brightness control.',
  input: 'This display’s inputs can’t be switched from here.',
  update: 'This player can’t update itself.',
  glimpse: 'This player can’t take pictures, or its screen is private.',
};

/** What a command says in a list: "Volume 40 %", "Turn 90°", "Switch input to HDMI 2". */
export function commandWords({
  kind,
  percent,
  degrees,
  input,
}: Pick<Command, 'kind' | 'percent' | 'degrees' | 'input'>): string {
  const name = Object.hasOwn(COMMANDS, kind) ? COMMANDS[kind as CommandKind].name : kind;
  if (percent !== undefined) return `${name} ${percent} %`;
  if (input !== undefined) return `${name} to ${socketName(input)}`;
  return degrees === undefined ? name : `${name} ${degrees}°`;
}
