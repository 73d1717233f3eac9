import type { Transaction } from 'sequelize';
import { currentDocument, patchOf, withoutWas, type Kind, type LoosePatch, type Media } from '@/core/plan';
import { rows } from '@/database';
import { namedMedia } from './named-media';

/** A change of the plan as pages receive it: the object before and after, and who changed it. */
export interface FeedChange {
  readonly number: number;
  readonly patch: LoosePatch;
  /** Null for the program itself, or a person who is gone. */
  readonly by: string | null;
  /** The name that the page gave this edit; absent once it is no longer known. */
  readonly origin?: string | undefined;
}

/** Changes in order, all that there are behind `after` up to `number`. */
export interface FeedChanges {
  readonly after: number;
  readonly number: number;
  readonly changes: readonly FeedChange[];
  /** Files that were changed or came into use, as they are now: a page holds only those that its plan uses. */
  readonly media: readonly Media[];
}

/** If a page has missed more changes than this, reloading is quicker. */
const MOST = 500;

/** The network's changes behind `since`; null where they are too many to be told one by one. */
export async function changesSince(
  networkId: string,
  since: number,
  within?: Transaction,
): Promise<FeedChanges | null> {
  const found = await rows<{
    number: string;
    kind: Kind;
    object: string;
    before: object | null;
    after: object | null;
    format: number;
    by: string | null;
  }>(
    `SELECT c.id AS number, c.kind, c.object, c.before, c.after, c.format, p.name AS by FROM changes c
     LEFT JOIN people p ON p.id = c.person_id WHERE c.network_id = $1 AND c.id > $2 ORDER BY c.id LIMIT ${MOST + 1}`,
    [networkId, since],
    within,
  );
  if (found.length > MOST) return null;
  const made = found.map(({ kind, object, before, after, format, ...rest }) => ({
    ...{ ...rest, kind, id: object },
    before: before && currentDocument(kind, before, format),
    after: after && currentDocument(kind, after, format),
  }));
  const changes = made.flatMap(({ number, kind, id, before, after, by }): FeedChange[] => {
    const patch = patchOf(kind, id, before, after);
    return patch ? [{ number: Number(number), patch: withoutWas(patch), by }] : [];
  });
  const media = await namedMedia(networkId, made, within);
  return { after: since, number: Number(found.at(-1)?.number ?? since), changes, media };
}
