import { done, parseSelector, screensMatching, type Plan, type Result, type Screen } from '@/core';

/** The screens that a selector text selects, or what is wrong with it. */
export function selectScreens(plan: Plan, text: string): Result<Screen[]> {
  const selector = parseSelector(text);
  return selector.ok ? done(screensMatching(plan, selector.value)) : selector;
}
