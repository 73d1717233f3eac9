export { clearHealth, noteHealth } from './note';
export { screenHealth, type PlayerFacts, type ScreenHealth } from './read';
export { screensOverview, type ScreenOverview } from './overview';
