export {
  ABILITIES,
  COMMANDS,
  COMMAND_KINDS,
  KEPT_AT_LEAST_MS,
  KEPT_AT_MOST_MS,
  KEPT_MS,
  SPREAD_AT_MOST_MS,
  cannotDo,
  commandWords,
  type Ability,
  type Amount,
  type Command,
  type CommandKind,
  type Outcome,
} from './commands';
export { numberAtSite } from './number';
export { PLAYER_INPUT, SOCKETS, socketName } from './sockets';
