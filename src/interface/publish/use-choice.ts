'use client';

import { useState } from 'react';
import { keyText, type ObjectKey } from '@/core/plan';
import { useDocketChoice } from '@/interface/data/queries';
import type { Docket, DocketEntry } from '@/services/editions';

/** Which unpublished changes are chosen: all of them, until you choose. Later changes are then not among them. */
export interface Choice {
  /** Whether all that waits goes out. */
  readonly isWhole: boolean;
  readonly chosen: readonly DocketEntry[];
  /** Of which objects they are. */
  readonly keys: readonly ObjectKey[];
  /** Changes that are published too because a chosen one needs them, by their keys, with the chosen one. */
  readonly along: ReadonlyMap<string, ObjectKey>;
  /** Undefined until it is counted. */
  readonly screens: readonly string[] | undefined;
  readonly fetches: Docket['fetches'] | undefined;
  readonly problems: Docket['problems'];
  has(entry: DocketEntry): boolean;
  set(entry: DocketEntry, on: boolean): void;
  choose(entries: readonly DocketEntry[]): void;
}

export function useChoice({ entries, screens, fetches, problems, change }: Docket): Choice {
  const [picked, setPicked] = useState<ReadonlySet<string> | null>(null);
  const chosen = picked === null ? entries : entries.filter((one) => picked.has(keyText(one)));
  const isWhole = chosen.length === entries.length;
  const asked = useDocketChoice(change, isWhole || chosen.length === 0 ? null : chosen);
  const choose = (list: readonly DocketEntry[]) =>
    setPicked(list.length === entries.length ? null : new Set(list.map(keyText)));
  return {
    ...{ isWhole, chosen, choose },
    keys: chosen.map(({ kind, id }) => ({ kind, id })),
    along: new Map((isWhole ? [] : (asked?.along ?? [])).map((one) => [keyText(one), one.for])),
    screens: isWhole ? screens : chosen.length === 0 ? [] : asked?.screens,
    fetches: isWhole ? fetches : asked?.fetches,
    problems: isWhole ? problems : (asked?.problems ?? []),
    has: (entry) => picked === null || picked.has(keyText(entry)),
    set: (entry, on) =>
      choose(
        on ? entries.filter((one) => one === entry || chosen.includes(one)) : chosen.filter((one) => one !== entry),
      ),
  };
}
