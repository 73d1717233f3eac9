export { readScreens, type ReadScreens, type ScreenLine } from './read';
