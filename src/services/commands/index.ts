export {
  cancelCommand,
  clearCommands,
  commandOf,
  recentCommands,
  sendCommand,
  type CommandSummary,
  type ScreensAlike,
  type Sent,
  type SentCommand,
} from './commands';
export { noteOutcomes, pendingCommands } from './pending';
export { commandSchema } from './schemas';
