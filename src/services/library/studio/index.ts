export { MOST_PIXELS } from './drawing';
export { inputOf, runFfmpeg } from './films';
export { Undrawable, draw } from './process';
export { SENT, runTool } from './sandbox';
