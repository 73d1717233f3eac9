import type { z } from 'zod';
import { planSchema, type Plan } from './schema';

/** A mistake in a document: an RFC 6901 JSON Pointer to the place, and a sentence that says what to do. */
export interface Problem {
  readonly path: string;
  readonly message: string;
}

/** Writes a path of keys as an RFC 6901 JSON Pointer. */
export function pointer(path: readonly PropertyKey[]): string {
  return path.map((key) => `/${String(key).replace(/~/g, '~0').replace(/\//g, '~1')}`).join('');
}

/** Zod's issues as problems: one each unknown field, and plain words where Zod's own say little. */
export function problemsOf(error: z.ZodError): Problem[] {
  return error.issues.flatMap((issue): Problem[] => {
    if (issue.code === 'unrecognized_keys')
      return issue.keys.map((key) => ({
        path: pointer([...issue.path, key]),
        message: `"${key}" is unknown here: remove it.`,
      }));
    if (issue.code === 'invalid_type') {
      const message =
        issue.input === undefined && issue.message.endsWith('received undefined')
          ? `This is missing: give ${issue.expected}.`
          : issue.message.startsWith('Invalid input: ')
            ? `This must be ${issue.message.replace('Invalid input: expected ', '').replace(', received', ', not')}.`
            : issue.message;
      return [{ path: pointer(issue.path), message }];
    }
    return [{ path: pointer(issue.path), message: issue.message }];
  });
}

/**
 * Reads a plan document. Returns the plan, or all of its problems at once: wrong fields, dangling ids, ids given twice,
 * playlists that contain themselves. Nothing is half read.
 */
export function readPlan(document: unknown): { plan: Plan } | { errors: Problem[] } {
  const result = planSchema.safeParse(document);
  const errors = [...(result.success ? [] : problemsOf(result.error)), ...referenceProblems(document)];
  if (result.success && errors.length === 0) return { plan: result.data };
  return { errors };
}

type Loose = Record<string, unknown>;

const isObject = (value: unknown): value is Loose =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const listOf = (value: unknown): unknown[] => (Array.isArray(value) ? value : []);

/**
 * The problems that only show between parts of a plan. Reads the document before it is known to be well-formed, so that
 * they are reported together with the others; what is malformed is left to the schema.
 */
export function referenceProblems(document: unknown): Problem[] {
  if (!isObject(document)) return [];
  const problems: Problem[] = [];
  const report = (path: PropertyKey[], message: string) => problems.push({ path: pointer(path), message });
  const ids: Record<string, Set<string>> = {};

  for (const collection of ['calendars', 'sites', 'screens', 'media', 'playlists', 'bookings']) {
    const seen = (ids[collection] = new Set<string>());
    listOf(document[collection]).forEach((entry, i) => {
      if (!isObject(entry) || typeof entry.id !== 'string') return;
      if (seen.has(entry.id)) report([collection, i, 'id'], `"${entry.id}" is taken by another entry: ids are unique.`);
      seen.add(entry.id);
    });
  }

  const refer = (path: PropertyKey[], collection: string, thing: string, id: unknown) => {
    if (typeof id === 'string' && !ids[collection]?.has(id))
      report(path, `There is no ${thing} "${id}": name one that the plan has.`);
  };
  const checkContent = (path: PropertyKey[], content: unknown) => {
    if (!isObject(content)) return;
    refer([...path, 'media'], 'media', 'media file', content.media);
    refer([...path, 'playlist'], 'playlists', 'playlist', content.playlist);
  };
  const checkWhen = (path: PropertyKey[], when: unknown) => {
    if (!isObject(when)) return;
    for (const field of ['only', 'not'])
      listOf(when[field]).forEach((id, i) => refer([...path, field, i], 'calendars', 'calendar', id));
  };

  if (isObject(document.network)) checkContent(['network', 'backdrop'], document.network.backdrop);
  listOf(document.sites).forEach((site, i) => isObject(site) && checkContent(['sites', i, 'backdrop'], site.backdrop));
  listOf(document.screens).forEach((screen, i) => {
    if (!isObject(screen)) return;
    refer(['screens', i, 'site'], 'sites', 'site', screen.site);
    checkContent(['screens', i, 'backdrop'], screen.backdrop);
    listOf(screen.lightsOut).forEach((when, j) => checkWhen(['screens', i, 'lightsOut', j], when));
  });
  listOf(document.media).forEach((media, i) => isObject(media) && checkWhen(['media', i, 'when'], media.when));
  listOf(document.bookings).forEach((booking, i) => {
    if (!isObject(booking)) return;
    checkContent(['bookings', i, 'content'], booking.content);
    checkWhen(['bookings', i, 'when'], booking.when);
  });
  listOf(document.playlists).forEach((playlist, i) => {
    if (!isObject(playlist)) return;
    listOf(playlist.items).forEach((item, j) => {
      checkContent(['playlists', i, 'items', j], item);
      if (isObject(item)) checkWhen(['playlists', i, 'items', j, 'when'], item.when);
    });
  });
  for (const path of selfContaining(document)) report(path, 'This playlist contains itself: take the item out.');
  return problems;
}

/** Paths of the playlist items that lead back to the playlist that they stand in. */
function selfContaining(document: Loose): PropertyKey[][] {
  const nested = new Map<string, string[]>();
  const playlists = listOf(document.playlists);
  for (const playlist of playlists)
    if (isObject(playlist) && typeof playlist.id === 'string')
      nested.set(
        playlist.id,
        listOf(playlist.items).flatMap((item) =>
          isObject(item) && typeof item.playlist === 'string' ? [item.playlist] : [],
        ),
      );
  const reaches = (from: string, target: string): boolean => {
    const seen = new Set<string>();
    const pending = [from];
    for (let id = pending.pop(); id !== undefined; id = pending.pop()) {
      if (id === target) return true;
      if (seen.has(id)) continue;
      seen.add(id);
      pending.push(...(nested.get(id) ?? []));
    }
    return false;
  };
  return playlists.flatMap((playlist, i) => {
    if (!isObject(playlist) || typeof playlist.id !== 'string') return [];
    const own = playlist.id;
    return listOf(playlist.items).flatMap((item, j) =>
      isObject(item) && typeof item.playlist === 'string' && reaches(item.playlist, own)
        ? [['playlists', i, 'items', j, 'playlist']]
        : [],
    );
  });
}
