import type { TaskName } from './tasks';

/**
 * What is done by hand and waited for: a warning that is fired, its all-clear, what is put on. These have a process of their own, so that
 * no publication, import or docket is ahead of them.
 */
export const URGENT: ReadonlySet<TaskName> = new Set<TaskName>([
  ...(['fireTakeover', 'drillTakeover', 'allClear', 'putOn', 'endPutOn'] as const),
]);
