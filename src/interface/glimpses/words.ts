import type { Verdict } from '@/core/glimpses';

/** What a comparison says, and whether it is a problem. */
export const VERDICT_WORDS: Readonly<Record<Verdict, { readonly text: string; readonly isProblem: boolean }>> = {
  alike: { text: 'Shows what is planned', isProblem: false },
  differs: { text: 'Doesn’t show what is planned', isProblem: true },
  black: { text: 'Black, but something is planned', isProblem: true },
  unsure: { text: 'Taken during a transition', isProblem: false },
};
