export { quoted, readSelectorNames, selectorWithNames, withPlaceTerms } from './named';
export { screensMatching } from './register';
export {
  evaluate,
  isTag,
  matches,
  mediaTerms,
  namedTerms,
  parseSelector,
  screenTerms,
  selectorOf,
  type Selector,
} from './selector';
