import type { Plan, Screen } from '@/core/plan';
import { done, type Result } from '@/core/refusal';
import { parseSelector, screensMatching } from '@/core/selector';

/** The screens that a selector text selects, or what is wrong with it. */
export function selectScreens(plan: Plan, text: string): Result<Screen[]> {
  const selector = parseSelector(text);
  return selector.ok ? done(screensMatching(plan, selector.value)) : selector;
}
