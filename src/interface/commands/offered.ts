import { COMMANDS, COMMAND_KINDS, cannotDo, type CommandKind } from '@/core/commands';
import type { ScreenStatus } from '@/services/screens';

/** The screens of these that have a player which can do a command. One that was never heard may be able to. */
export function ableScreens(
  kind: CommandKind,
  screens: readonly string[],
  statuses: ReadonlyMap<string, ScreenStatus>,
): string[] {
  return screens.filter((id) => {
    const status = statuses.get(id);
    if (!status || status.state === 'unpaired') return false;
    return status.can === null || cannotDo(kind, status.can) === null;
  });
}

/** The commands that at least one of these screens can do, in the order of the menu. */
export const offeredCommands = (
  screens: readonly string[],
  statuses: ReadonlyMap<string, ScreenStatus>,
): CommandKind[] => COMMAND_KINDS.filter((kind) => ableScreens(kind, screens, statuses).length > 0);

/** Whether a command is asked about before it is sent: it takes an amount, deletes files, or puts several screens out of sight. */
export const isAskedAbout = (kind: CommandKind, screens: number): boolean =>
  COMMANDS[kind].amount !== undefined || COMMANDS[kind].deletes === true || (COMMANDS[kind].hides && screens > 1);
