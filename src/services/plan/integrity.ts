import type { Transaction } from 'sequelize';
import {
  clipProblems,
  layoutProblems,
  currentDocument,
  danglingMessage,
  keyText,
  kindOf,
  linksOf,
  nestingProblems,
  pointer,
  referencesOf,
  type Kind,
  type Media,
  type ObjectKey,
  type Playlist,
} from '@/core/plan';
import { Refusal, type Problem } from '@/core/refusal';
import { rows, rowsOfMany } from '@/database';
import { replacedIn } from './media-files';
import { loadObjects, targetsOf, type Write } from './objects';

/** What only shows between objects: names of what is not there, what is still used, lists in themselves, clips past the end. */

/** What would point at nothing: on removal, names what still uses the object; else the places in the edited documents. */
export async function refuseDangling(networkId: string, writes: readonly Write[], within: Transaction): Promise<void> {
  const touched = new Map(writes.map((one) => [keyText(one), one]));
  const gone = writes.filter((one) => !one.after);
  if (gone.length > 0) await refuseUsed(networkId, gone, touched, within);
  const links = writes.flatMap((one) => linksOf(one.after, referencesOf(one.kind)).map((link) => ({ one, link })));
  const asked = links.flatMap(({ link }) => {
    const key = { kind: link.kind as Kind, id: link.id };
    return touched.has(keyText(key)) ? [] : [key];
  });
  const there = asked.length > 0 ? await existing(networkId, asked, within) : new Set<string>();
  const problems = links.flatMap(({ link: { kind, id, path } }): Problem[] => {
    const key = keyText({ kind: kind as Kind, id });
    const stays = touched.has(key) ? touched.get(key)?.after !== null : there.has(key);
    return stays ? [] : [{ path: pointer(path), message: danglingMessage(kind, id) }];
  });
  if (problems.length === 0)
    problems.push(
      ...(await nestingProblemsOf(networkId, writes, within)),
      ...(await layoutProblemsOf(networkId, writes, within)),
      ...(await clipsOf(networkId, writes, within)),
    );
  if (problems[0]) throw new Refusal(422, problems[0].message, problems);
}

async function existing(networkId: string, keys: readonly ObjectKey[], within: Transaction): Promise<Set<string>> {
  const asked = new Map(keys.map((key) => [keyText(key), key]));
  const found = await rowsOfMany<{ kind: Kind; slug: string }>(
    `SELECT o.kind, o.slug FROM plan_objects o JOIN jsonb_to_recordset($2::jsonb) AS k(kind text, id text)
       ON o.kind = k.kind AND o.slug = k.id WHERE o.network_id = $1`,
    [networkId, JSON.stringify([...asked.values()])],
    asked.size,
    within,
  );
  return new Set(found.map(({ kind, slug }) => keyText({ kind, id: slug })));
}

async function refuseUsed(
  networkId: string,
  gone: readonly Write[],
  touched: ReadonlyMap<string, Write>,
  within: Transaction,
): Promise<void> {
  const users = await rowsOfMany<{ kind: Kind; id: string; name: string; toKind: Kind; toId: string }>(
    `SELECT o.kind, o.slug AS id, o.name, l.to_kind AS "toKind", l.to_slug AS "toId" FROM plan_links l
     JOIN jsonb_to_recordset($2::jsonb) AS k(kind text, id text) ON l.to_kind = k.kind AND l.to_slug = k.id
     JOIN plan_objects o ON o.network_id = l.network_id AND o.kind = l.from_kind AND o.slug = l.from_slug
     WHERE l.network_id = $1 ORDER BY o.kind, o.slug`,
    [networkId, JSON.stringify(gone.map(({ kind, id }) => ({ kind, id })))],
    gone.length,
    within,
  );
  const still = users.filter((user) => {
    const known = touched.get(keyText(user));
    return known
      ? targetsOf(user.kind, known.after).some((one) => keyText(one) === keyText({ kind: user.toKind, id: user.toId }))
      : true;
  });
  const [first] = still;
  if (!first) return;
  const named = still.map(({ kind, name }) =>
    kind === 'network' ? 'the network’s backdrop' : `${kindOf(kind).noun} “${name}”`,
  );
  throw new Refusal(
    409,
    `This ${kindOf(first.toKind).noun} is still used by ${[...new Set(named)].join(', ')}. Remove it there first.`,
  );
}

/** Clips that the films of edited playlists do not have. */
async function clipsOf(networkId: string, writes: readonly Write[], within: Transaction): Promise<Problem[]> {
  const playlists = [
    ...writes.filter((one) => one.kind === 'playlist' && one.after),
    ...(await playingCutsOf(networkId, writes, within)),
  ];
  const wanted = playlists.flatMap(({ after }) =>
    (after as Playlist).items.flatMap(({ clip, media }) => (clip && media !== undefined ? [media] : [])),
  );
  if (wanted.length === 0) return [];
  const keys = [...new Set(wanted)].map((id): ObjectKey => ({ kind: 'media', id }));
  const files = await loadObjects(networkId, keys, within);
  for (const { kind, id, after } of writes) if (kind === 'media' && after) files.set(keyText({ kind, id }), after);
  const fileOf = (id: string) => files.get(keyText({ kind: 'media', id })) as Media | undefined;
  return playlists.flatMap(({ id, after }) =>
    clipProblems(after, fileOf).map(({ path, message }) =>
      writes.some((one) => one.kind === 'playlist' && one.id === id)
        ? { path: pointer(path), message }
        : { path: '', message: `In the playlist “${(after as Playlist).name}”: ${message}` },
    ),
  );
}

/** Playlists beside those that are edited that play files which are replaced: what they cut out of them has to be there still. */
async function playingCutsOf(
  networkId: string,
  writes: readonly Write[],
  within: Transaction,
): Promise<{ readonly id: string; readonly after: object }[]> {
  const replaced = replacedIn(writes).map(({ id }) => id);
  if (replaced.length === 0) return [];
  const found = await rows<{ slug: string; document: object; format: number }>(
    `SELECT o.slug, o.document, o.format FROM plan_links l
     JOIN plan_objects o ON o.network_id = l.network_id AND o.kind = l.from_kind AND o.slug = l.from_slug
     WHERE l.network_id = $1 AND l.from_kind = 'playlist' AND l.to_kind = 'media' AND l.to_slug = ANY($2)`,
    [networkId, replaced],
    within,
  );
  return found
    .filter(({ slug }) => !writes.some((one) => one.kind === 'playlist' && one.id === slug))
    .map(({ slug, document, format }) => ({ id: slug, after: currentDocument('playlist', document, format) }));
}

/** Zones that come to show a playlist in which a layout is: those of a layout that is edited, or of one that shows a playlist that is. */
async function layoutProblemsOf(networkId: string, writes: readonly Write[], within: Transaction): Promise<Problem[]> {
  const isAsked = writes.some(
    ({ kind, after }) =>
      after !== null &&
      (kind === 'layout' ||
        (kind === 'playlist' && targetsOf(kind, after).some((to) => to.kind === 'layout' || to.kind === 'playlist'))),
  );
  if (!isAsked) return [];
  const known = await rows<{ kind: 'layout' | 'playlist'; slug: string; document: object }>(
    `SELECT kind, slug, document FROM plan_objects WHERE network_id = $1 AND kind IN ('layout', 'playlist')`,
    [networkId],
    within,
  );
  const edited = new Map(writes.map(({ kind, id, after }) => [keyText({ kind, id }), after]));
  const of = (wanted: 'layout' | 'playlist') => [
    ...known.flatMap(({ kind, slug, document }) =>
      kind === wanted && !edited.has(keyText({ kind, id: slug })) ? [{ ...document, id: slug }] : [],
    ),
    ...writes.flatMap(({ kind, id, after }) => (kind === wanted && after ? [{ ...after, id }] : [])),
  ];
  const layouts = of('layout');
  return layoutProblems(layouts, of('playlist')).map(({ path: [i, ...path], message }) => {
    const { id, name } = layouts[Number(i)] as { id: string; name?: string };
    return edited.has(keyText({ kind: 'layout', id }))
      ? { path: pointer(path), message }
      : {
          path: '',
          message: `This playlist is in a zone of the layout “${name ?? id}”, and a zone can’t show a layout.`,
        };
  });
}

/** What comes to contain itself, or too much: objects that contain each other, as far as the links reach from those that are edited. */
async function nestingProblemsOf(networkId: string, writes: readonly Write[], within: Transaction): Promise<Problem[]> {
  const problems: Problem[] = [];
  for (const kind of new Set(writes.map((one) => one.kind))) {
    if (!referencesOf(kind).some((path) => path.kind === kind)) continue;
    const edited = new Map(writes.flatMap((one) => (one.kind === kind && one.after ? [[one.id, one.after]] : [])));
    if (edited.size === 0) continue;
    const starts = [...edited].flatMap(([id, after]) => [
      id,
      ...targetsOf(kind, after).flatMap((target) => (target.kind === kind ? [target.id] : [])),
    ]);
    const reached = await rows<{ slug: string; name: string; document: object }>(
      `WITH RECURSIVE reached(slug) AS (SELECT unnest($3::text[]) COLLATE "C" UNION
         SELECT CASE WHEN l.from_slug = r.slug THEN l.to_slug ELSE l.from_slug END
         FROM plan_links l JOIN reached r ON r.slug IN (l.from_slug, l.to_slug)
         WHERE l.network_id = $1 AND l.from_kind = $2 AND l.to_kind = $2)
       SELECT o.slug, o.name, o.document FROM plan_objects o JOIN reached r ON o.slug = r.slug
       WHERE o.network_id = $1 AND o.kind = $2`,
      [networkId, kind, [...new Set(starts)]],
      within,
    );
    const names = new Map(reached.map(({ slug, name }) => [slug, name]));
    const documents = new Map<string, object>(reached.map(({ slug, document }) => [slug, document]));
    for (const [id, after] of edited) documents.set(id, after);
    for (const { id, path, message } of nestingProblems(kind, documents))
      problems.push(
        edited.has(id)
          ? { path: pointer(path), message }
          : { path: '', message: `This is in the ${kindOf(kind).noun} “${names.get(id) ?? id}”. ${message}` },
      );
  }
  return problems;
}
