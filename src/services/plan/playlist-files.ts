import type { Transaction } from 'sequelize';
import { MOST_OF_NAME } from '@/core/plan';
import { Refusal, orThrow } from '@/core/refusal';
import { isSeen, lineOf } from '@/core/text';
import { matchEntries, readM3u8, readXspf, writeM3u8, writeXspf, type Entry } from '@/core/formats/playlists';
import { rows, uuidv7 } from '@/database';
import { notFound } from '../errors';
import { demand, type Actor } from '../people';
import { editWithin } from './edits';
import { draftPlan } from './plan';
import { inTurn, takeTurn } from './turns';

/** Playlists as files that other programs read and write. */

export type PlaylistFormat = 'm3u8' | 'xspf';

const FORMATS = {
  m3u8: { write: writeM3u8, type: 'audio/x-mpegurl; charset=utf-8' },
  xspf: { write: writeXspf, type: 'application/xspf+xml; charset=utf-8' },
} as const;

/** A playlist of the draft as a file. Throws 404 for none. */
export async function playlistFile(
  actor: Actor,
  id: string,
  format: PlaylistFormat,
): Promise<{ readonly name: string; readonly type: string; readonly text: string }> {
  const { plan } = await draftPlan(actor);
  const playlist = plan.playlists.find((one) => one.id === id);
  if (!playlist) throw notFound('playlist');
  const { write, type } = FORMATS[format];
  return { name: `${id}.${format}`, type, text: write(plan, playlist) };
}

/** A playlist that was made of a file, and the entries for which the library has nothing. */
export interface PlaylistRead {
  readonly id: string;
  readonly name: string;
  readonly items: number;
  readonly missing: readonly Entry[];
}

/**
 * Makes a playlist of an M3U or XSPF file: of its entries those that the library has, found by their names. Nothing that it names is fetched.
 * Throws 422 with a sentence for what is none, or names nothing that is there.
 */
export async function addPlaylistFile(actor: Actor, fileName: string, text: string): Promise<PlaylistRead> {
  demand(actor, 'plan');
  const isXml = /^\uFEFF?\s*</.test(text);
  const { title, entries } = orThrow(isXml ? readXspf(text) : readM3u8(text));
  const called = lineOf((title ?? fileName.replace(/\.[^.]*$/, '')).trim(), MOST_OF_NAME);
  const { plan } = await draftPlan(actor);
  const { items, missing } = matchEntries(
    entries,
    plan.media.filter(({ archived }) => !archived),
  );
  if (items.length === 0)
    throw new Refusal(
      422,
      `None of the ${entries.length} files in this playlist is in your library. Upload them, then read it again.`,
    );
  return inTurn(actor.networkId, async (within) => {
    await takeTurn(actor.networkId, within);
    const name = await freePlaylistName(actor.networkId, isSeen(called) ? called : 'Playlist', within);
    const { ids } = await editWithin(actor, [{ kind: 'playlist', add: { name, items } }], within, { id: uuidv7() });
    return { id: ids[0] ?? '', name, items: items.length, missing };
  });
}

/** A name that no playlist has yet: if the wanted one is taken, with a number added. */
export async function freePlaylistName(networkId: string, name: string, within: Transaction): Promise<string> {
  const found = await rows<{ name: string }>(
    "SELECT lower(name) AS name FROM plan_objects WHERE network_id = $1 AND kind = 'playlist'",
    [networkId],
    within,
  );
  const taken = new Set(found.map((one) => one.name));
  for (let n = 1; ; n++) {
    const wanted = n === 1 ? name : `${lineOf(name, MOST_OF_NAME - 8)} (${n})`;
    if (!taken.has(wanted.toLowerCase())) return wanted;
  }
}
