export {
  isTag,
  matches,
  mediaTerms,
  parseSelector,
  screenTerms,
  selectorOf,
  type Selector,
  type SelectorError,
} from './selector';
