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
import type { Kind } from '@/core/plan';
import type { Role } from '@/core/roles';
import { uuidv7 } from './uuid';

class Row<M extends Model> extends Model<InferAttributes<M>, InferCreationAttributes<M>> {}

export class NetworkRow extends Row<NetworkRow> {
  declare id: CreationOptional<string>;
  declare slug: string;
}

export class PersonRow extends Row<PersonRow> {
  declare id: CreationOptional<string>;
  declare networkId: string;
  /** Null for a person who was removed, as is the password. */
  declare email: string | null;
  declare name: string;
  declare passwordHash: string | null;
  declare role: Role;
  declare removedAt: CreationOptional<Date | null>;
  /** Whether the password is one that the sample network's documentation tells everybody. */
  declare samplePassword: CreationOptional<boolean>;
}

export class SessionRow extends Row<SessionRow> {
  declare id: CreationOptional<string>;
  declare tokenHash: string;
  declare personId: string;
  declare createdAt: CreationOptional<Date>;
  declare expiresAt: Date;
  declare seenAt: CreationOptional<Date>;
  /** Where it was opened: the address and what the browser calls itself. */
  declare address: string | null;
  declare agent: string | null;
}

/** A link that adds a person, or resets a person's password, once. */
export class InvitationRow extends Row<InvitationRow> {
  declare id: CreationOptional<string>;
  declare networkId: string;
  declare personId: string | null;
  /** What the person will be; null for a link that sets a password. */
  declare role: Role | null;
  declare name: string;
  declare email: string;
  declare tokenHash: string;
  declare byId: string | null;
  declare createdAt: CreationOptional<Date>;
  declare expiresAt: Date;
}

export class FileRow extends Row<FileRow> {
  declare sha256: string;
  declare bytes: number;
  declare type: string;
}

/** A plan object of any kind: its document, and what the registry says of it. */
export class ObjectRow extends Row<ObjectRow> {
  declare id: CreationOptional<string>;
  declare networkId: string;
  declare kind: Kind;
  declare slug: string;
  declare name: string;
  declare nameScope: string | null;
  declare document: object;
  declare format: number;
}

/** The files that a media file was made of. */
export class MediaFilesRow extends Row<MediaFilesRow> {
  declare mediaId: string;
  declare networkId: string;
  declare originalSha256: string;
  declare assetSha256: string;
  declare thumbnailSha256: string;
  declare codec: string | null;
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

export class ChangeRow extends Row<ChangeRow> {
  declare id: CreationOptional<number>;
  declare networkId: string;
  declare personId: string | null;
  declare at: CreationOptional<Date>;
  declare kind: Kind;
  declare object: string;
  declare before: object | null;
  declare after: object | null;
  declare format: number;
  declare act: CreationOptional<string | null>;
  declare takesBack: CreationOptional<string | null>;
  declare columns: CreationOptional<object | null>;
}

/** How an edition is tried on some screens first. */
export interface PilotColumn {
  /** The selector that chose them. */
  readonly where: string;
  /** When they got it, as all instants here in ISO 8601. */
  readonly begun: string;
  /** When they got it in its present form: another edition may have gone out before it in between. */
  readonly given: string;
  /** So long they have to be lit with it before the others get it by themselves, in minutes; null where a person says. */
  readonly minutes: number | null;
  /** When the others get it, if the minutes are over by then; null, or absent in older rows, for as soon as they are. */
  readonly at?: string | null;
  /** Since when all of them are lit with it; null while any of them isn't. */
  readonly litSince: string | null;
  /** When and why it was stopped; null while it runs. */
  readonly stopped: { readonly at: string; readonly why: string } | null;
}

export class EditionRow extends Row<EditionRow> {
  declare id: CreationOptional<string>;
  declare networkId: string;
  /** Null for one that is planned. */
  declare number: number | null;
  /** When it goes out, or was to: null for one that was published at once. */
  declare plannedFor: CreationOptional<Date | null>;
  /** What clocks at each site show when it goes out there; `plannedFor` is the last of these instants. Null where it is one instant. */
  declare siteTime: CreationOptional<string | null>;
  /** On which screens it is tried first; null where it is not. */
  declare pilot: CreationOptional<PilotColumn | null>;
  declare publishedAt: CreationOptional<Date>;
  declare personId: string | null;
  declare lastChange: number;
  declare again: number | null;
  declare whole: CreationOptional<boolean>;
  /** Whether it was made by hand, beside what is planned: something put on or ended, fired or cleared. */
  declare aside: CreationOptional<boolean>;
  declare note: CreationOptional<string | null>;
  declare plan: object;
  declare format: number;
}

export class ProgramRow extends Row<ProgramRow> {
  declare hash: string;
}

export class PlayerRow extends Row<PlayerRow> {
  declare id: CreationOptional<string>;
  declare networkId: string;
  declare screenId: string;
  /** Which display of a wall it is; 1 for a screen that isn't a wall. */
  declare part: CreationOptional<number>;
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
  declare part: CreationOptional<number>;
  /** The hash of the token that it had before, if it says so. */
  declare wasHash: CreationOptional<string | null>;
  /** Of a player that came with an enrolment key of this network. */
  declare networkId: CreationOptional<string | null>;
}

export class UploadRow extends Row<UploadRow> {
  declare id: CreationOptional<string>;
  declare networkId: string;
  declare personId: string | null;
  declare name: string;
  declare sha256: string | null;
  declare state: 'sending' | 'waiting' | 'working' | 'ready' | 'failed';
  /** Size in bytes, as the sender said. */
  declare bytes: CreationOptional<number | null>;
  /** The files that were sent together with it. */
  declare batch: CreationOptional<string | null>;
  declare progress: CreationOptional<number>;
  declare error: CreationOptional<string | null>;
  declare mediaId: CreationOptional<string | null>;
  /** The row of the media file whose new version it is. */
  declare replaces: CreationOptional<string | null>;
  declare createdAt: CreationOptional<Date>;
}

const id = { type: DataTypes.UUID, primaryKey: true, defaultValue: uuidv7 };
const key = () => ({ type: DataTypes.TEXT, primaryKey: true });
const uuid = DataTypes.UUID;
const text = DataTypes.TEXT;
const integer = DataTypes.INTEGER;
const json = DataTypes.JSONB;
const date = DataTypes.DATE;
const now = () => ({ type: DataTypes.DATE, defaultValue: DataTypes.NOW });
/** bigint columns stay well under 2^53 here, so plain numbers carry them. */
const big = (name: string) => ({
  type: DataTypes.BIGINT,
  get(this: Model) {
    return Number(this.getDataValue(name as never));
  },
});
/** Binds the models to a connection. The columns' rules are in the migrations: the database enforces them. */
export function bindModels(sequelize: Sequelize): void {
  const bind = (model: unknown, tableName: string, attributes: Record<string, unknown>) =>
    (model as ModelStatic<Model>).init(attributes as ModelAttributes, {
      sequelize,
      tableName,
      underscored: true,
      timestamps: false,
    });
  bind(NetworkRow, 'networks', { id, slug: text });
  bind(PersonRow, 'people', {
    id,
    networkId: uuid,
    email: text,
    name: text,
    passwordHash: text,
    role: text,
    removedAt: date,
    samplePassword: { type: DataTypes.BOOLEAN, defaultValue: false },
  });
  bind(SessionRow, 'sessions', {
    id,
    tokenHash: text,
    personId: uuid,
    createdAt: now(),
    expiresAt: date,
    seenAt: now(),
    address: text,
    agent: text,
  });
  bind(InvitationRow, 'invitations', {
    id,
    networkId: uuid,
    personId: uuid,
    role: text,
    name: text,
    email: text,
    tokenHash: text,
    byId: uuid,
    createdAt: now(),
    expiresAt: date,
  });
  bind(FileRow, 'files', { sha256: key(), bytes: big('bytes'), type: text });
  bind(ObjectRow, 'plan_objects', {
    id,
    networkId: uuid,
    kind: text,
    slug: text,
    name: text,
    nameScope: text,
    document: json,
    format: integer,
  });
  bind(MediaFilesRow, 'media_files', {
    mediaId: { type: uuid, primaryKey: true },
    networkId: uuid,
    originalSha256: { type: text, field: 'original_sha256' },
    assetSha256: { type: text, field: 'asset_sha256' },
    thumbnailSha256: { type: text, field: 'thumbnail_sha256' },
    codec: text,
  });
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
  bind(ChangeRow, 'changes', {
    id: { ...big('id'), primaryKey: true, autoIncrement: true },
    networkId: uuid,
    personId: uuid,
    at: now(),
    kind: text,
    object: text,
    before: json,
    after: json,
    format: integer,
    act: uuid,
    takesBack: uuid,
    columns: json,
  });
  bind(EditionRow, 'editions', {
    id,
    networkId: uuid,
    number: integer,
    plannedFor: date,
    siteTime: text,
    pilot: json,
    publishedAt: now(),
    personId: uuid,
    lastChange: big('lastChange'),
    again: integer,
    whole: { type: DataTypes.BOOLEAN, defaultValue: true },
    aside: { type: DataTypes.BOOLEAN, defaultValue: false },
    note: text,
    plan: json,
    format: integer,
  });
  bind(ProgramRow, 'programs', { hash: key() });
  bind(PlayerRow, 'players', {
    id,
    networkId: uuid,
    screenId: uuid,
    part: { type: integer, defaultValue: 1 },
    tokenHash: text,
    pairedAt: now(),
    lastSeen: date,
    report: json,
  });
  bind(PairingRow, 'pairings', {
    id,
    deviceHash: text,
    userCode: text,
    expiresAt: date,
    screenId: uuid,
    part: { type: integer, defaultValue: 1 },
    wasHash: text,
    networkId: uuid,
  });
  bind(UploadRow, 'uploads', {
    id,
    networkId: uuid,
    personId: uuid,
    name: text,
    sha256: text,
    state: text,
    bytes: big('bytes'),
    batch: uuid,
    progress: { type: integer, defaultValue: 0 },
    error: text,
    mediaId: uuid,
    replaces: uuid,
    createdAt: now(),
  });
}
