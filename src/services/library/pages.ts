import { countTags, findMedia, usedMedia, type Media, type TagCount } from '@/core';
import type { Actor } from '../people';
import { draftPlan } from '../plan';

/** A part of the files that one means, in order. */
export interface MediaPage {
  readonly files: readonly Media[];
  /** How many there are in all. */
  readonly total: number;
  /** Where the next page begins; null at the end. */
  readonly next: number | null;
}

/** What is asked of the library: files by words or a selector, `count` of them from place `from` on, perhaps only unused ones. */
export interface MediaSearch {
  readonly search: string;
  readonly from: number;
  readonly count: number;
  readonly unused: boolean;
}

/** The network's files that are meant, the newest first. */
export async function findInLibrary(actor: Actor, { search, from, count, unused }: MediaSearch): Promise<MediaPage> {
  const { plan } = await draftPlan(actor);
  const used = unused ? usedMedia(plan) : new Set<string>();
  const found = findMedia(plan.media, search).filter((file) => !used.has(file.id));
  const next = from + count < found.length ? from + count : null;
  return { files: found.slice(from, from + count), total: found.length, next };
}

/** The tags of the network's files, the most used first. */
export async function libraryTags(actor: Actor): Promise<TagCount[]> {
  const { plan } = await draftPlan(actor);
  return countTags(plan.media).sort((a, b) => b.count - a.count);
}
