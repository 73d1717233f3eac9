export { clearHealth, noteHealth } from './note';
export { screenHealth, type PlayerFacts, type ScreenHealth } from './read';
export { overviewNews, screensOverview, type OverviewNews, type ScreenOverview } from './overview';
