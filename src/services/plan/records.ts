import type { Transaction } from 'sequelize';
import type { Booking, Calendar, Content, Item, Media, Network, Plan, Playlist, Screen, Site } from '@/core';
import {
  BookingRow,
  CalendarRow,
  MediaRow,
  NetworkRow,
  PlaylistItemRow,
  PlaylistRow,
  ScreenRow,
  SiteRow,
  type ChangeKind,
} from '@/database';
import { notFound } from '../errors';

/** Rows to plan documents and back. What is null in a row is absent in a document, so nothing is lost either way. */

export type ObjectKind = Exclude<ChangeKind, 'network'>;

export interface PlanObjects {
  network: Network;
  calendar: Calendar;
  site: Site;
  screen: Screen;
  media: Media;
  playlist: Playlist;
  booking: Booking;
}

export const COLLECTION = {
  calendar: 'calendars',
  site: 'sites',
  screen: 'screens',
  media: 'media',
  playlist: 'playlists',
  booking: 'bookings',
} as const satisfies Record<ObjectKind, keyof Plan>;

const ROWS = {
  calendar: CalendarRow,
  site: SiteRow,
  screen: ScreenRow,
  media: MediaRow,
  playlist: PlaylistRow,
  booking: BookingRow,
};

/** Row ids by slug, a map a kind. */
export type RowIds = Record<ObjectKind, Map<string, string>>;

export interface LoadedPlan {
  readonly plan: Plan;
  readonly ids: RowIds;
}

/** A document without the fields that are null or undefined. */
function compact<T>(fields: object): T {
  return Object.fromEntries(Object.entries(fields).filter(([, value]) => value != null)) as T;
}

const instant = (date: Date) => date.toISOString().replace('.000Z', 'Z');

/** A network's whole plan, as the database holds it now. Entries stand in order of their ids. */
export async function loadPlan(networkId: string, transaction?: Transaction): Promise<LoadedPlan> {
  const all = { where: { networkId }, order: [['slug', 'ASC']] as [string, string][], raw: true, transaction };
  const network = await NetworkRow.findByPk(networkId, { raw: true, transaction });
  if (!network) throw notFound('network');
  const calendars = await CalendarRow.findAll(all);
  const sites = await SiteRow.findAll(all);
  const screens = await ScreenRow.findAll(all);
  const media = await MediaRow.findAll(all);
  const playlists = await PlaylistRow.findAll(all);
  const bookings = await BookingRow.findAll(all);
  const items = await PlaylistItemRow.findAll({
    where: { networkId },
    order: [['position', 'ASC']],
    raw: true,
    transaction,
  });

  const slugs = (list: readonly { id: string; slug: string }[]) => new Map(list.map((row) => [row.id, row.slug]));
  const [mediaSlugs, playlistSlugs, siteSlugs] = [slugs(media), slugs(playlists), slugs(sites)];
  const content = (
    mediaId: string | null,
    playlistId: string | null,
    durationMs: number | null,
  ): Content | undefined =>
    mediaId === null && playlistId === null
      ? undefined
      : compact<Content>({
          media: mediaId && mediaSlugs.get(mediaId),
          playlist: playlistId && playlistSlugs.get(playlistId),
          durationMs,
        });
  const backdrop = (row: NetworkRow | SiteRow | ScreenRow) =>
    content(row.backdropMediaId ?? null, row.backdropPlaylistId ?? null, row.backdropDurationMs ?? null);
  const itemsOf = new Map<string, PlaylistItemRow[]>(playlists.map((row) => [row.id, []]));
  for (const item of items) itemsOf.get(item.playlistId)?.push(item);

  const plan: Plan = {
    format: 'lanternpost/plan',
    version: 1,
    network: compact<Network>({
      name: network.name,
      defaultDurationMs: network.defaultDurationMs,
      backdrop: backdrop(network),
    }),
    calendars: calendars.map((row) =>
      compact<Calendar>({ id: row.slug, name: row.name, dates: row.dates, holidays: row.holidays }),
    ),
    sites: sites.map((row) =>
      compact<Site>({
        id: row.slug,
        name: row.name,
        timeZone: row.timeZone,
        tags: row.tags,
        location:
          row.latitude === null || row.longitude === null ? null : { latitude: row.latitude, longitude: row.longitude },
        hours: row.hours,
        backdrop: backdrop(row),
      }),
    ),
    screens: screens.map((row) =>
      compact<Screen>({
        id: row.slug,
        name: row.name,
        site: siteSlugs.get(row.siteId),
        width: row.width,
        height: row.height,
        tags: row.tags,
        backdrop: backdrop(row),
        lightsOut: row.lightsOut,
      }),
    ),
    media: media.map((row) =>
      compact<Media>({
        id: row.slug,
        name: row.name,
        kind: row.kind,
        width: row.width,
        height: row.height,
        bytes: Number(row.bytes),
        durationMs: row.durationMs,
        tags: row.tags,
        added: instant(row.added),
        when: row.when,
        sha256: row.assetSha256,
        type: row.type,
      }),
    ),
    playlists: playlists.map((row) => ({
      id: row.slug,
      name: row.name,
      items: (itemsOf.get(row.id) ?? []).map((item) =>
        compact<Item>({
          media: item.mediaId && mediaSlugs.get(item.mediaId),
          playlist: item.nestedId && playlistSlugs.get(item.nestedId),
          collect: item.collect,
          order: item.order,
          limit: item.limit,
          durationMs: item.durationMs,
          where: item.selector,
          when: item.when,
        }),
      ),
    })),
    bookings: bookings.map((row) =>
      compact<Booking>({
        id: row.slug,
        name: row.name,
        content: content(row.mediaId, row.playlistId, row.durationMs),
        where: row.selector,
        priority: row.priority,
        takeover: row.takeover,
        wake: row.wake,
        onHold: row.onHold,
        created: instant(row.created),
        when: row.when,
      }),
    ),
  };
  const idsOf = (list: readonly { id: string; slug: string }[]) => new Map(list.map((row) => [row.slug, row.id]));
  return {
    plan,
    ids: {
      calendar: idsOf(calendars),
      site: idsOf(sites),
      screen: idsOf(screens),
      media: idsOf(media),
      playlist: idsOf(playlists),
      booking: idsOf(bookings),
    },
  };
}

/** Columns of a media row that no plan document carries. */
export interface MediaColumns {
  readonly originalSha256: string;
  readonly thumbnailSha256: string;
  readonly codec: string | null;
}

/** Those columns of a media file; null for one that the database does not hold or that has no files. */
export async function mediaColumns(
  networkId: string,
  slug: string,
  transaction: Transaction,
): Promise<MediaColumns | null> {
  const row = await MediaRow.findOne({ where: { networkId, slug }, raw: true, transaction });
  const { originalSha256, thumbnailSha256, codec } = row ?? {};
  return originalSha256 && thumbnailSha256 ? { originalSha256, thumbnailSha256, codec: codec ?? null } : null;
}

/** Writes one checked object, new or known, and returns its row id. References are resolved through `ids`. */
export async function writeObject<K extends ObjectKind>(
  networkId: string,
  kind: K,
  document: PlanObjects[K],
  ids: RowIds,
  transaction: Transaction,
  columns?: MediaColumns,
): Promise<string> {
  const values = { networkId, slug: document.id, ...columnsOf(kind, document, ids), ...columns };
  const known = ids[kind].get(document.id);
  const model = ROWS[kind] as unknown as typeof CalendarRow;
  let id = known;
  if (id === undefined) {
    id = (await model.create(values as never, { transaction })).id;
    ids[kind].set(document.id, id);
  } else await model.update(values as never, { where: { networkId, id }, transaction });
  if (kind === 'playlist') await writeItems(networkId, id, (document as Playlist).items, ids, transaction);
  return id;
}

export async function removeObject(
  networkId: string,
  kind: ObjectKind,
  slug: string,
  ids: RowIds,
  transaction: Transaction,
): Promise<void> {
  const model = ROWS[kind] as unknown as typeof CalendarRow;
  await model.destroy({ where: { networkId, id: ids[kind].get(slug) }, transaction });
  ids[kind].delete(slug);
}

export async function writeNetwork(
  networkId: string,
  network: Network,
  ids: RowIds,
  transaction: Transaction,
): Promise<void> {
  await NetworkRow.update(
    {
      name: network.name,
      defaultDurationMs: network.defaultDurationMs ?? null,
      ...backdropColumns(network.backdrop, ids),
    },
    { where: { id: networkId }, transaction },
  );
}

const reference = (ids: RowIds, kind: ObjectKind, slug: string | undefined) =>
  slug === undefined ? null : (ids[kind].get(slug) ?? null);

const backdropColumns = (content: Content | undefined, ids: RowIds) => ({
  backdropMediaId: reference(ids, 'media', content?.media),
  backdropPlaylistId: reference(ids, 'playlist', content?.playlist),
  backdropDurationMs: content?.durationMs ?? null,
});

function columnsOf(kind: ObjectKind, document: PlanObjects[ObjectKind], ids: RowIds): object {
  const is = <K extends ObjectKind>(wanted: K, value: unknown): value is PlanObjects[K] =>
    kind === wanted && value !== undefined;
  if (is('calendar', document))
    return { name: document.name, dates: document.dates, holidays: document.holidays ?? null };
  if (is('site', document))
    return {
      name: document.name,
      timeZone: document.timeZone,
      tags: document.tags ?? null,
      latitude: document.location?.latitude ?? null,
      longitude: document.location?.longitude ?? null,
      hours: document.hours ?? null,
      ...backdropColumns(document.backdrop, ids),
    };
  if (is('screen', document))
    return {
      name: document.name,
      siteId: reference(ids, 'site', document.site),
      width: document.width,
      height: document.height,
      tags: document.tags ?? null,
      lightsOut: document.lightsOut ?? null,
      ...backdropColumns(document.backdrop, ids),
    };
  if (is('media', document))
    return {
      name: document.name,
      kind: document.kind,
      width: document.width,
      height: document.height,
      bytes: document.bytes,
      durationMs: document.durationMs ?? null,
      tags: document.tags ?? null,
      added: new Date(document.added),
      when: document.when ?? null,
      assetSha256: document.sha256 ?? null,
      type: document.type ?? null,
    };
  if (is('booking', document))
    return {
      name: document.name,
      mediaId: reference(ids, 'media', document.content.media),
      playlistId: reference(ids, 'playlist', document.content.playlist),
      durationMs: document.content.durationMs ?? null,
      selector: document.where,
      priority: document.priority,
      takeover: document.takeover ?? null,
      wake: document.wake ?? null,
      onHold: document.onHold ?? null,
      created: new Date(document.created),
      when: document.when,
    };
  return { name: document.name };
}

async function writeItems(
  networkId: string,
  playlistId: string,
  items: readonly Item[],
  ids: RowIds,
  transaction: Transaction,
): Promise<void> {
  await PlaylistItemRow.destroy({ where: { playlistId }, transaction });
  await PlaylistItemRow.bulkCreate(
    items.map((item, position) => ({
      networkId,
      playlistId,
      position,
      mediaId: reference(ids, 'media', item.media),
      nestedId: reference(ids, 'playlist', item.playlist),
      collect: item.collect ?? null,
      order: item.collect === undefined ? null : (item.order ?? null),
      limit: item.collect === undefined ? null : (item.limit ?? null),
      durationMs: item.durationMs ?? null,
      selector: item.where ?? null,
      when: item.when ?? null,
    })),
    { transaction },
  );
}
