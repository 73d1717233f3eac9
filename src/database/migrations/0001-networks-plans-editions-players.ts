/**
 * Everything that the first lamp needs. A plan object has two keys: `id`, which rows refer to, and `slug`, its id in the
 * plan file, which stays when the name changes. References carry the network along, so that no row can point across networks.
 */
const planObject = (table: string, columns: string, constraints = '') => `
CREATE TABLE ${table} (
  id uuid PRIMARY KEY,
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  slug text NOT NULL CHECK (slug ~ '^[a-z0-9][a-z0-9_-]{0,79}$'),
  name text NOT NULL CHECK (length(btrim(name)) BETWEEN 1 AND 120),
  ${columns},
  UNIQUE (network_id, slug),
  UNIQUE (network_id, id)${constraints}
);`;

const uniqueName = (table: string, scope = 'network_id') =>
  `CREATE UNIQUE INDEX ${table}_name ON ${table} (${scope}, lower(name));`;

const backdrop = `
  backdrop_media_id uuid,
  backdrop_playlist_id uuid,
  backdrop_duration_ms integer CHECK (backdrop_duration_ms >= 100),
  CHECK (num_nonnulls(backdrop_media_id, backdrop_playlist_id) <= 1)`;

const backdropKeys = (network: string) => `
  ADD FOREIGN KEY (${network}, backdrop_media_id) REFERENCES media (network_id, id) DEFERRABLE INITIALLY DEFERRED,
  ADD FOREIGN KEY (${network}, backdrop_playlist_id) REFERENCES playlists (network_id, id) DEFERRABLE INITIALLY DEFERRED`;

export const up = `
CREATE TABLE networks (
  id uuid PRIMARY KEY,
  slug text NOT NULL UNIQUE,
  name text NOT NULL CHECK (length(btrim(name)) BETWEEN 1 AND 120),
  default_duration_ms integer CHECK (default_duration_ms >= 100),
  ${backdrop}
);

CREATE TABLE people (
  id uuid PRIMARY KEY,
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  email text NOT NULL UNIQUE CHECK (email = lower(email) AND email LIKE '%_@_%'),
  name text NOT NULL,
  password_hash text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE sessions (
  id uuid PRIMARY KEY,
  token_hash text NOT NULL UNIQUE,
  person_id uuid NOT NULL REFERENCES people ON DELETE CASCADE,
  created_at timestamptz NOT NULL DEFAULT now(),
  expires_at timestamptz NOT NULL
);

CREATE TABLE attempts (
  key text PRIMARY KEY,
  count integer NOT NULL,
  resets_at timestamptz NOT NULL
);

CREATE TABLE files (
  sha256 text PRIMARY KEY CHECK (sha256 ~ '^[0-9a-f]{64}$'),
  bytes bigint NOT NULL CHECK (bytes > 0),
  type text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);
${planObject('calendars', 'dates jsonb NOT NULL')}
${uniqueName('calendars')}
${planObject(
  'media',
  `kind text NOT NULL CHECK (kind IN ('image', 'video')),
  width integer NOT NULL CHECK (width > 0),
  height integer NOT NULL CHECK (height > 0),
  bytes bigint NOT NULL CHECK (bytes >= 0),
  duration_ms integer CHECK (duration_ms >= 100),
  codec text,
  tags text[],
  "when" jsonb,
  added timestamptz NOT NULL,
  original_sha256 text REFERENCES files,
  asset_sha256 text REFERENCES files,
  thumbnail_sha256 text REFERENCES files,
  type text,
  CHECK ((asset_sha256 IS NULL) = (type IS NULL))`,
)}
CREATE UNIQUE INDEX media_original ON media (network_id, original_sha256);
${planObject('playlists', `created_at timestamptz NOT NULL DEFAULT now()`)}
${uniqueName('playlists')}

CREATE TABLE playlist_items (
  network_id uuid NOT NULL,
  playlist_id uuid NOT NULL,
  position integer NOT NULL CHECK (position >= 0),
  media_id uuid,
  nested_id uuid CHECK (nested_id <> playlist_id),
  collect text,
  "order" text CHECK ("order" IN ('name', 'newest', 'oldest')),
  "limit" integer CHECK ("limit" >= 1),
  duration_ms integer CHECK (duration_ms >= 100),
  selector text,
  "when" jsonb,
  PRIMARY KEY (playlist_id, position),
  CHECK (num_nonnulls(media_id, nested_id, collect) = 1),
  CHECK (collect IS NOT NULL OR num_nonnulls("order", "limit") = 0),
  FOREIGN KEY (network_id, playlist_id) REFERENCES playlists (network_id, id) ON DELETE CASCADE,
  FOREIGN KEY (network_id, media_id) REFERENCES media (network_id, id) DEFERRABLE INITIALLY DEFERRED,
  FOREIGN KEY (network_id, nested_id) REFERENCES playlists (network_id, id) DEFERRABLE INITIALLY DEFERRED
);
CREATE INDEX playlist_items_media ON playlist_items (media_id);
${planObject(
  'sites',
  `time_zone text NOT NULL,
  tags text[],
  latitude double precision CHECK (latitude BETWEEN -90 AND 90),
  longitude double precision CHECK (longitude BETWEEN -180 AND 180),
  hours jsonb,
  ${backdrop}`,
)}
${uniqueName('sites')}
${planObject(
  'screens',
  `site_id uuid NOT NULL,
  width integer NOT NULL CHECK (width > 0),
  height integer NOT NULL CHECK (height > 0),
  tags text[],
  lights_out jsonb,
  ${backdrop}`,
  ',\n  FOREIGN KEY (network_id, site_id) REFERENCES sites (network_id, id)',
)}
${uniqueName('screens', 'site_id')}
${planObject(
  'bookings',
  `media_id uuid,
  playlist_id uuid,
  duration_ms integer CHECK (duration_ms >= 100),
  selector text NOT NULL,
  priority smallint NOT NULL CHECK (priority BETWEEN 1 AND 5),
  takeover boolean,
  wake boolean,
  on_hold boolean,
  created timestamptz NOT NULL,
  "when" jsonb NOT NULL`,
  `,
  CHECK (num_nonnulls(media_id, playlist_id) = 1),
  FOREIGN KEY (network_id, media_id) REFERENCES media (network_id, id) DEFERRABLE INITIALLY DEFERRED,
  FOREIGN KEY (network_id, playlist_id) REFERENCES playlists (network_id, id) DEFERRABLE INITIALLY DEFERRED`,
)}
${uniqueName('bookings')}
ALTER TABLE networks ${backdropKeys('id')};
ALTER TABLE sites ${backdropKeys('network_id')};
ALTER TABLE screens ${backdropKeys('network_id')};

CREATE TABLE changes (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  person_id uuid REFERENCES people ON DELETE SET NULL,
  at timestamptz NOT NULL DEFAULT now(),
  kind text NOT NULL CHECK (kind IN ('network', 'calendar', 'site', 'screen', 'media', 'playlist', 'booking')),
  object text NOT NULL,
  before jsonb,
  after jsonb,
  CHECK (num_nonnulls(before, after) >= 1)
);
CREATE INDEX changes_by_network ON changes (network_id, id);
CREATE INDEX changes_by_object ON changes (network_id, kind, object, id DESC);

CREATE TABLE editions (
  id uuid PRIMARY KEY,
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  number integer NOT NULL CHECK (number >= 1),
  published_at timestamptz NOT NULL DEFAULT now(),
  person_id uuid REFERENCES people ON DELETE SET NULL,
  last_change bigint NOT NULL,
  again integer,
  plan jsonb NOT NULL,
  UNIQUE (network_id, number)
);

CREATE TABLE programs (
  hash text PRIMARY KEY CHECK (hash ~ '^[0-9a-f]{64}$'),
  document text NOT NULL
);

CREATE TABLE program_files (
  hash text NOT NULL REFERENCES programs ON DELETE CASCADE,
  sha256 text NOT NULL REFERENCES files,
  PRIMARY KEY (hash, sha256)
);
CREATE INDEX program_files_file ON program_files (sha256);

CREATE TABLE edition_screens (
  edition_id uuid NOT NULL REFERENCES editions ON DELETE CASCADE,
  screen text NOT NULL,
  hash text NOT NULL REFERENCES programs,
  PRIMARY KEY (edition_id, screen)
);
CREATE INDEX edition_screens_hash ON edition_screens (hash);

CREATE TABLE players (
  id uuid PRIMARY KEY,
  network_id uuid NOT NULL,
  screen_id uuid NOT NULL UNIQUE,
  token_hash text NOT NULL UNIQUE,
  paired_at timestamptz NOT NULL DEFAULT now(),
  last_seen timestamptz,
  report jsonb,
  FOREIGN KEY (network_id, screen_id) REFERENCES screens (network_id, id) ON DELETE CASCADE
);

CREATE TABLE pairings (
  id uuid PRIMARY KEY,
  device_hash text NOT NULL UNIQUE,
  user_code text NOT NULL UNIQUE CHECK (user_code ~ '^[BCDFGHJKLMNPQRSTVWXZ]{8}$'),
  expires_at timestamptz NOT NULL,
  screen_id uuid REFERENCES screens ON DELETE CASCADE
);

CREATE TABLE uploads (
  id uuid PRIMARY KEY,
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  person_id uuid REFERENCES people ON DELETE SET NULL,
  name text NOT NULL,
  sha256 text REFERENCES files ON DELETE SET NULL,
  state text NOT NULL CHECK (state IN ('waiting', 'working', 'ready', 'failed')),
  progress smallint NOT NULL DEFAULT 0 CHECK (progress BETWEEN 0 AND 100),
  error text,
  media_id uuid REFERENCES media ON DELETE SET NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  CHECK ((state = 'failed') = (error IS NOT NULL))
);
CREATE INDEX uploads_by_network ON uploads (network_id, created_at);
`;

export const down = `
DROP TABLE uploads, pairings, players, edition_screens, program_files, programs, editions, changes, playlist_items, bookings,
  screens, sites, playlists, media, calendars, files, attempts, sessions, people, networks CASCADE;
`;
