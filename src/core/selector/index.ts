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
} from './selector';
