import type { Problem } from '@/core';

/** What an action answers: its value, or a sentence that says what to do, with the places where known. */
export type Result<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly status: number; readonly message: string; readonly problems: readonly Problem[] };
