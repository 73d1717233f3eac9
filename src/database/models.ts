import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type ModelAttributes,
  type ModelStatic,
  type Sequelize,
} from 'sequelize';
import type { Calendar, OpeningHours, Plan, When } from '@/core';
import { uuidv7 } from './uuid';

class Row<M extends Model> extends Model<InferAttributes<M>, InferCreationAttributes<M>> {}

interface Backdrop {
  backdropMediaId: CreationOptional<string | null>;
  backdropPlaylistId: CreationOptional<string | null>;
  backdropDurationMs: CreationOptional<number | null>;
}

export class NetworkRow extends Row<NetworkRow> implements Backdrop {
  declare id: CreationOptional<string>;
  declare slug: string;
  declare name: string;
  declare defaultDurationMs: CreationOptional<number | null>;
  declare backdropMediaId: CreationOptional<string | null>;
  declare backdropPlaylistId: CreationOptional<string | null>;
  declare backdropDurationMs: CreationOptional<number | null>;
}

export class PersonRow extends Row<PersonRow> {
  declare id: CreationOptional<string>;
  declare networkId: string;
  declare email: string;
  declare name: string;
  declare passwordHash: string;
}

export class SessionRow extends Row<SessionRow> {
  declare id: CreationOptional<string>;
  declare tokenHash: string;
  declare personId: string;
  declare expiresAt: Date;
}

export class FileRow extends Row<FileRow> {
  declare sha256: string;
  declare bytes: number;
  declare type: string;
}

export class CalendarRow extends Row<CalendarRow> {
  declare id: CreationOptional<string>;
  declare networkId: string;
  declare slug: string;
  declare name: string;
  declare dates: Calendar['dates'];
  declare holidays: Calendar['holidays'] | null;
}

/** An address from which a calendar program fetches bookings. */
export class FeedRow extends Row<FeedRow> {
  declare id: CreationOptional<string>;
  declare networkId: string;
  declare name: string;
  declare selector: string;
  declare tokenHash: string;
  declare personId: string | null;
  declare createdAt: CreationOptional<Date>;
  declare fetchedAt: Date | null;
}

export class MediaRow extends Row<MediaRow> {
  declare id: CreationOptional<string>;
  declare networkId: string;
  declare slug: string;
  declare name: string;
  declare kind: 'image' | 'video';
  declare width: number;
  declare height: number;
  declare bytes: number;
  declare durationMs: number | null;
  declare codec: CreationOptional<string | null>;
  declare tags: string[] | null;
  declare when: When | null;
  declare added: Date;
  declare originalSha256: CreationOptional<string | null>;
  declare assetSha256: string | null;
  declare thumbnailSha256: CreationOptional<string | null>;
  declare type: string | null;
}

export class PlaylistRow extends Row<PlaylistRow> {
  declare id: CreationOptional<string>;
  declare networkId: string;
  declare slug: string;
  declare name: string;
}

export class PlaylistItemRow extends Row<PlaylistItemRow> {
  declare networkId: string;
  declare playlistId: string;
  declare position: number;
  declare mediaId: string | null;
  declare nestedId: string | null;
  declare collect: string | null;
  declare order: 'name' | 'newest' | 'oldest' | null;
  declare limit: number | null;
  declare durationMs: number | null;
  declare selector: string | null;
  declare when: When | null;
}

export class SiteRow extends Row<SiteRow> implements Backdrop {
  declare id: CreationOptional<string>;
  declare networkId: string;
  declare slug: string;
  declare name: string;
  declare timeZone: string;
  declare tags: string[] | null;
  declare latitude: number | null;
  declare longitude: number | null;
  declare hours: OpeningHours | null;
  declare backdropMediaId: CreationOptional<string | null>;
  declare backdropPlaylistId: CreationOptional<string | null>;
  declare backdropDurationMs: CreationOptional<number | null>;
}

export class ScreenRow extends Row<ScreenRow> implements Backdrop {
  declare id: CreationOptional<string>;
  declare networkId: string;
  declare siteId: string;
  declare slug: string;
  declare name: string;
  declare width: number;
  declare height: number;
  declare tags: string[] | null;
  declare lightsOut: When[] | null;
  declare backdropMediaId: CreationOptional<string | null>;
  declare backdropPlaylistId: CreationOptional<string | null>;
  declare backdropDurationMs: CreationOptional<number | null>;
}

export class BookingRow extends Row<BookingRow> {
  declare id: CreationOptional<string>;
  declare networkId: string;
  declare slug: string;
  declare name: string;
  declare mediaId: string | null;
  declare playlistId: string | null;
  declare durationMs: number | null;
  declare selector: string;
  declare priority: number;
  declare takeover: boolean | null;
  declare wake: boolean | null;
  declare onHold: boolean | null;
  declare created: Date;
  declare when: When;
}

export type ChangeKind = 'network' | 'calendar' | 'site' | 'screen' | 'media' | 'playlist' | 'booking';

export class ChangeRow extends Row<ChangeRow> {
  declare id: CreationOptional<number>;
  declare networkId: string;
  declare personId: string | null;
  declare at: CreationOptional<Date>;
  declare kind: ChangeKind;
  declare object: string;
  declare before: unknown;
  declare after: unknown;
  declare act: CreationOptional<string | null>;
  declare takesBack: CreationOptional<string | null>;
  declare columns: CreationOptional<object | null>;
}

export class EditionRow extends Row<EditionRow> {
  declare id: CreationOptional<string>;
  declare networkId: string;
  declare number: number;
  declare publishedAt: CreationOptional<Date>;
  declare personId: string | null;
  declare lastChange: number;
  declare again: number | null;
  declare plan: Plan;
}

export class ProgramRow extends Row<ProgramRow> {
  declare hash: string;
  declare document: string;
}

export class ProgramFileRow extends Row<ProgramFileRow> {
  declare hash: string;
  declare sha256: string;
}

export class EditionScreenRow extends Row<EditionScreenRow> {
  declare editionId: string;
  declare screen: string;
  declare hash: string;
}

export class PlayerRow extends Row<PlayerRow> {
  declare id: CreationOptional<string>;
  declare networkId: string;
  declare screenId: string;
  declare tokenHash: string;
  declare pairedAt: CreationOptional<Date>;
  declare lastSeen: CreationOptional<Date | null>;
  declare report: CreationOptional<unknown>;
}

export class PairingRow extends Row<PairingRow> {
  declare id: CreationOptional<string>;
  declare deviceHash: string;
  declare userCode: string;
  declare expiresAt: Date;
  declare screenId: CreationOptional<string | null>;
}

export class UploadRow extends Row<UploadRow> {
  declare id: CreationOptional<string>;
  declare networkId: string;
  declare personId: string | null;
  declare name: string;
  declare sha256: string | null;
  declare state: 'waiting' | 'working' | 'ready' | 'failed';
  declare progress: CreationOptional<number>;
  declare error: CreationOptional<string | null>;
  declare mediaId: CreationOptional<string | null>;
  declare createdAt: CreationOptional<Date>;
}

const id = { type: DataTypes.UUID, primaryKey: true, defaultValue: uuidv7 };
const key = () => ({ type: DataTypes.TEXT, primaryKey: true });
const uuid = DataTypes.UUID;
const text = DataTypes.TEXT;
const integer = DataTypes.INTEGER;
const json = DataTypes.JSONB;
const date = DataTypes.DATE;
const flag = DataTypes.BOOLEAN;
const now = () => ({ type: DataTypes.DATE, defaultValue: DataTypes.NOW });
const tags = DataTypes.ARRAY(DataTypes.TEXT);
/** bigint columns stay well under 2^53 here, so plain numbers carry them. */
const big = (name: string) => ({
  type: DataTypes.BIGINT,
  get(this: Model) {
    return Number(this.getDataValue(name as never));
  },
});
const backdrop = { backdropMediaId: uuid, backdropPlaylistId: uuid, backdropDurationMs: integer };
const planObject = { id, networkId: uuid, slug: text, name: text };

/** Binds the models to a connection. The columns' rules are in the migrations: the database enforces them. */
export function bindModels(sequelize: Sequelize): void {
  const bind = (model: unknown, tableName: string, attributes: Record<string, unknown>) =>
    (model as ModelStatic<Model>).init(attributes as ModelAttributes, {
      sequelize,
      tableName,
      underscored: true,
      timestamps: false,
    });
  bind(NetworkRow, 'networks', { id, slug: text, name: text, defaultDurationMs: integer, ...backdrop });
  bind(PersonRow, 'people', { id, networkId: uuid, email: text, name: text, passwordHash: text });
  bind(SessionRow, 'sessions', { id, tokenHash: text, personId: uuid, expiresAt: date });
  bind(FileRow, 'files', { sha256: key(), bytes: big('bytes'), type: text });
  bind(CalendarRow, 'calendars', { ...planObject, dates: json, holidays: json });
  bind(FeedRow, 'feeds', {
    id,
    networkId: uuid,
    name: text,
    selector: text,
    tokenHash: text,
    personId: uuid,
    createdAt: now(),
    fetchedAt: date,
  });
  bind(MediaRow, 'media', {
    ...planObject,
    kind: text,
    width: integer,
    height: integer,
    bytes: big('bytes'),
    durationMs: integer,
    codec: text,
    tags,
    when: json,
    added: date,
    originalSha256: { type: text, field: 'original_sha256' },
    assetSha256: { type: text, field: 'asset_sha256' },
    thumbnailSha256: { type: text, field: 'thumbnail_sha256' },
    type: text,
  });
  bind(PlaylistRow, 'playlists', planObject);
  bind(PlaylistItemRow, 'playlist_items', {
    networkId: uuid,
    playlistId: { type: uuid, primaryKey: true },
    position: { type: integer, primaryKey: true },
    mediaId: uuid,
    nestedId: uuid,
    collect: text,
    order: text,
    limit: integer,
    durationMs: integer,
    selector: text,
    when: json,
  });
  bind(SiteRow, 'sites', {
    ...planObject,
    timeZone: text,
    tags,
    latitude: DataTypes.DOUBLE,
    longitude: DataTypes.DOUBLE,
    hours: json,
    ...backdrop,
  });
  bind(ScreenRow, 'screens', {
    ...planObject,
    siteId: uuid,
    width: integer,
    height: integer,
    tags,
    lightsOut: json,
    ...backdrop,
  });
  bind(BookingRow, 'bookings', {
    ...planObject,
    mediaId: uuid,
    playlistId: uuid,
    durationMs: integer,
    selector: text,
    priority: integer,
    takeover: flag,
    wake: flag,
    onHold: flag,
    created: date,
    when: json,
  });
  bind(ChangeRow, 'changes', {
    id: { ...big('id'), primaryKey: true, autoIncrement: true },
    networkId: uuid,
    personId: uuid,
    at: now(),
    kind: text,
    object: text,
    before: json,
    after: json,
    act: uuid,
    takesBack: uuid,
    columns: json,
  });
  bind(EditionRow, 'editions', {
    id,
    networkId: uuid,
    number: integer,
    publishedAt: now(),
    personId: uuid,
    lastChange: big('lastChange'),
    again: integer,
    plan: json,
  });
  bind(ProgramRow, 'programs', { hash: key(), document: text });
  bind(ProgramFileRow, 'program_files', { hash: key(), sha256: key() });
  bind(EditionScreenRow, 'edition_screens', { editionId: { type: uuid, primaryKey: true }, screen: key(), hash: text });
  bind(PlayerRow, 'players', {
    id,
    networkId: uuid,
    screenId: uuid,
    tokenHash: text,
    pairedAt: now(),
    lastSeen: date,
    report: json,
  });
  bind(PairingRow, 'pairings', { id, deviceHash: text, userCode: text, expiresAt: date, screenId: uuid });
  bind(UploadRow, 'uploads', {
    id,
    networkId: uuid,
    personId: uuid,
    name: text,
    sha256: text,
    state: text,
    progress: { type: integer, defaultValue: 0 },
    error: text,
    mediaId: uuid,
    createdAt: now(),
  });
}
