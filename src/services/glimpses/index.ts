export { compareGlimpse } from './compare';
export { clearGlimpses, glimpsePicture, glimpsesOfScreen, newestGlimpses, type Glimpse } from './read';
export { takeGlimpse } from './take';
export { isWatched, watchScreens } from './watch';
