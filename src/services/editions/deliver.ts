import type { Transaction } from 'sequelize';
import { canonicalJson, sha256Hex, type Plan, type ProgramDocument, type Screen } from '@/core';
import { publish, rows } from '@/database';
import { fitted, renditionsOf, wantRenditions, type Rendition } from '../library';
import { inTurn, takeTurn } from '../plan';
import { newestEdition, type WholeEdition } from './editions';
import { textsOf, writePrograms } from './programs';

/**
 * What players get: an edition's programs, with the renditions that there are for each screen's size in place of files that are larger.
 * What is seen, and when, is the same.
 */

interface Given {
  readonly screen: string;
  readonly hash: string;
  readonly delivered: string | null;
}

/** An edition whose screens are to be looked at: all of them, or some. */
interface Delivering {
  readonly id: string;
  readonly plan: Plan;
  readonly only?: ReadonlySet<string> | undefined;
}

/** Brings what an edition delivers up to date with the renditions that there are, and asks for those that are missing. Whether it differs. */
export async function deliverEdition({ id, plan, only }: Delivering, within: Transaction): Promise<boolean> {
  const all = await rows<Given>(
    'SELECT screen, hash, delivered FROM edition_screens WHERE edition_id = $1 ORDER BY screen',
    [id],
    within,
  );
  const given = only ? all.filter(({ screen }) => only.has(screen)) : all;
  const screens = new Map(plan.screens.map((screen) => [screen.id, screen]));
  const documents = await documentsOf([...new Set(given.map(({ hash }) => hash))], within);
  const assets = new Map(
    [...documents.values()].flatMap((one) => Object.values(one.assets)).map((asset) => [asset.sha256, asset]),
  );
  await wantRenditions(
    [...assets.values()].filter((asset) => asset.kind !== 'sound'),
    plan.screens,
    within,
    { ahead: true },
  );
  const known = await renditionsOf([...assets.keys()], within);
  const made = new Map<string, string>();
  const hashes = new Map<string, string | null>();
  const next = (hash: string, screen: Screen): string | null => {
    const key = `${hash} ${screen.width}x${screen.height}`;
    const found = hashes.get(key);
    if (found !== undefined) return found;
    const document = documents.get(hash);
    const text = document ? withRenditions(document, screen, known) : null;
    const smaller = text === null ? null : sha256Hex(text);
    if (text !== null && smaller !== null) made.set(smaller, text);
    hashes.set(key, smaller);
    return smaller;
  };
  const changes = given.flatMap(({ screen, hash, delivered }) => {
    const place = screens.get(screen);
    const now = place ? next(hash, place) : null;
    return now === delivered ? [] : [{ screen, delivered: now }];
  });
  if (changes.length === 0) return false;
  await writePrograms(made, within);
  await rows(
    `UPDATE edition_screens s SET delivered = x.delivered FROM jsonb_to_recordset($2::jsonb) AS x(screen text, delivered text)
     WHERE s.edition_id = $1 AND s.screen = x.screen`,
    [id, JSON.stringify(changes)],
    within,
  );
  return true;
}

async function documentsOf(hashes: readonly string[], within: Transaction): Promise<Map<string, ProgramDocument>> {
  const texts = await textsOf(hashes, within);
  return new Map([...texts].map(([hash, text]) => [hash, JSON.parse(text) as ProgramDocument]));
}

/** A program with what fits a screen's size, in canonical form; null where all its files are right as they are. */
function withRenditions(
  document: ProgramDocument,
  screen: Screen,
  known: ReadonlyMap<string, readonly Rendition[]>,
): string | null {
  let smaller = false;
  // What is shown pixel for pixel is shown by the file's own.
  const exact = new Set(document.loops.flat().flatMap(({ media, fit }) => (fit === 'exact' ? [media] : [])));
  const assets = Object.fromEntries(
    Object.entries(document.assets).map(([id, asset]) => {
      const next = exact.has(id) ? asset : fitted(asset, screen, known.get(asset.sha256) ?? []);
      smaller ||= next !== asset;
      return [id, next];
    }),
  );
  return smaller ? canonicalJson({ ...document, assets }) : null;
}

/**
 * What a new edition delivers: as the one before it where a screen has the same program and the same size, so that a large network is not
 * gone through for a small change; else anew.
 */
export async function deliverNew(
  edition: { readonly id: string; readonly plan: Plan },
  before: WholeEdition | null,
  within: Transaction,
): Promise<void> {
  const sizes = new Map(before?.plan.screens.map(({ id, width, height }) => [id, `${width}x${height}`]));
  const alike = edition.plan.screens.filter(({ id, width, height }) => sizes.get(id) === `${width}x${height}`);
  const kept = before
    ? await rows<{ screen: string }>(
        `UPDATE edition_screens s SET delivered = o.delivered FROM edition_screens o
         WHERE s.edition_id = $1 AND o.edition_id = $2 AND s.screen = o.screen AND s.hash = o.hash AND s.screen = ANY($3)
         RETURNING s.screen`,
        [edition.id, before.id, alike.map(({ id }) => id)],
        within,
      )
    : [];
  const same = new Set(kept.map(({ screen }) => screen));
  const only = new Set(edition.plan.screens.map(({ id }) => id).filter((id) => !same.has(id)));
  if (only.size > 0) await deliverEdition({ ...edition, only }, within);
}

/** Gives players of a network's newest edition the renditions that were made since it was published. */
export async function deliverAgain(networkId: string): Promise<void> {
  await inTurn(networkId, async (within) => {
    await takeTurn(networkId, within);
    const newest = await newestEdition(networkId, within);
    if (newest && (await deliverEdition(newest, within)))
      await publish({ kind: 'edition', network: networkId }, within);
  });
}
