'use client';

import { useRef, useState } from 'react';
import type { Media } from '@/core/plan';

/** Which files are chosen for what is done to many: they stay so while others are looked for. */
export interface Chosen {
  readonly files: ReadonlyMap<string, Media>;
  /** Chooses a file, or lets it go; `upTo` all from the one that was chosen last. */
  choose(file: Media, upTo: boolean): void;
  all(files: readonly Media[]): void;
  letGo(): void;
}

/** `sight` are the visible files, in their order. */
export function useChosen(sight: readonly Media[]): Chosen {
  const [files, setFiles] = useState<ReadonlyMap<string, Media>>(new Map());
  const last = useRef<string | null>(null);
  return {
    files,
    choose(file, upTo) {
      setFiles(chosenAfter(files, sight, file, upTo ? last.current : null));
      last.current = file.id;
    },
    all: (more) => setFiles(new Map([...files, ...more.map((file) => [file.id, file] as const)])),
    letGo: () => setFiles(new Map()),
  };
}

/** What is chosen after a file was pressed: with `from` all between, as the pressed one becomes; else it alone. */
export function chosenAfter(
  chosen: ReadonlyMap<string, Media>,
  sight: readonly Media[],
  file: Media,
  from: string | null,
): ReadonlyMap<string, Media> {
  const on = !chosen.has(file.id);
  const [a, b] = [sight.findIndex(({ id }) => id === from), sight.findIndex(({ id }) => id === file.id)];
  const range = a < 0 || b < 0 ? [file] : sight.slice(Math.min(a, b), Math.max(a, b) + 1);
  const next = new Map(chosen);
  for (const one of range) {
    if (on) next.set(one.id, one);
    else next.delete(one.id);
  }
  return next;
}
