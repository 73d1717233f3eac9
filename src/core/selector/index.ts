export { screensMatching } from './register';
export {
  isTag,
  matches,
  mediaTerms,
  namedTerms,
  parseSelector,
  screenTerms,
  selectorOf,
  type Selector,
  type SelectorError,
} from './selector';
