/**
 * Every kind of plan object is in one table: its document as the core's registry describes it, its name, and the scope within
 * which the name is unique. Its references are in `plan_links`, read off its schema when it is written, so that the database
 * itself holds that nothing points at nothing or into another network, whatever kinds there are. Of a media file, the files that
 * it was made of are beside it. Documents that are never written again (a change's, an edition's) say in which format they are.
 */

/** An object of the tables before, as a document: fields that are null are absent. */
const moved = (kind: string, table: string, document: string, scope: string, from = '') => `
INSERT INTO plan_objects (id, network_id, kind, slug, name, name_scope, document, format)
SELECT o.id, o.network_id, '${kind}', o.slug, o.name, ${scope}, jsonb_strip_nulls(jsonb_build_object('id', o.slug, 'name', o.name) || ${document}), 1
FROM ${table} o ${from};`;

const instant = (column: string) =>
  `replace(to_char(${column} AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"'), '.000Z', 'Z')`;

const slugOf = (table: string, id: string) => `(SELECT slug FROM ${table} r WHERE r.id = ${id})`;

const content = (media: string, playlist: string, duration: string) => `
  CASE WHEN num_nonnulls(${media}, ${playlist}) = 0 THEN NULL ELSE jsonb_strip_nulls(jsonb_build_object(
    'media', ${slugOf('media', media)}, 'playlist', ${slugOf('playlists', playlist)}, 'durationMs', ${duration})) END`;

const backdrop = content('o.backdrop_media_id', 'o.backdrop_playlist_id', 'o.backdrop_duration_ms');

/** The links of every object that was moved: those of the seven kinds that there were. */
const links = `
INSERT INTO plan_links (network_id, from_kind, from_slug, to_kind, to_slug)
SELECT DISTINCT o.network_id, o.kind, o.slug, l.kind, l.slug FROM plan_objects o CROSS JOIN LATERAL (
  SELECT 'site' AS kind, o.document->>'site' AS slug WHERE o.kind = 'screen'
  UNION ALL SELECT c.kind, c.value->>c.kind FROM (VALUES ('media', o.document->'content'), ('media', o.document->'backdrop'),
      ('playlist', o.document->'content'), ('playlist', o.document->'backdrop')) AS c(kind, value)
  UNION ALL SELECT k.kind, i.value->>k.kind FROM jsonb_array_elements(CASE WHEN o.kind = 'playlist' THEN o.document->'items' ELSE '[]' END) AS i
    CROSS JOIN (VALUES ('media'), ('playlist')) AS k(kind)
  UNION ALL SELECT 'calendar', c.value FROM (
      SELECT o.document->'when' AS value
      UNION ALL SELECT value FROM jsonb_array_elements(CASE WHEN o.kind = 'screen' THEN coalesce(o.document->'lightsOut', '[]') ELSE '[]' END)
      UNION ALL SELECT value->'when' FROM jsonb_array_elements(CASE WHEN o.kind = 'playlist' THEN o.document->'items' ELSE '[]' END)
    ) AS w CROSS JOIN LATERAL jsonb_array_elements_text(coalesce(w.value->'only', '[]') || coalesce(w.value->'not', '[]')) AS c
) AS l WHERE l.slug IS NOT NULL;`;

export const up = `
CREATE TABLE plan_objects (
  id uuid PRIMARY KEY,
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  kind text NOT NULL CHECK (kind ~ '^[a-z]{1,40}$'),
  slug text COLLATE "C" NOT NULL CHECK (slug ~ '^[a-z0-9][a-z0-9_-]{0,79}$'),
  name text NOT NULL CHECK (length(btrim(name)) BETWEEN 1 AND 120),
  name_scope text,
  document jsonb NOT NULL CHECK (jsonb_typeof(document) = 'object' AND document->>'name' = name),
  format integer NOT NULL CHECK (format >= 1),
  UNIQUE (network_id, kind, slug),
  UNIQUE (network_id, id)
);
CREATE UNIQUE INDEX plan_objects_name ON plan_objects (network_id, kind, name_scope, lower(name)) WHERE name_scope IS NOT NULL;

CREATE TABLE plan_links (
  network_id uuid NOT NULL,
  from_kind text NOT NULL,
  from_slug text COLLATE "C" NOT NULL,
  to_kind text NOT NULL,
  to_slug text COLLATE "C" NOT NULL,
  PRIMARY KEY (network_id, from_kind, from_slug, to_kind, to_slug),
  FOREIGN KEY (network_id, from_kind, from_slug) REFERENCES plan_objects (network_id, kind, slug) ON DELETE CASCADE,
  CONSTRAINT plan_links_target FOREIGN KEY (network_id, to_kind, to_slug) REFERENCES plan_objects (network_id, kind, slug)
    DEFERRABLE INITIALLY DEFERRED
);
CREATE INDEX plan_links_to ON plan_links (network_id, to_kind, to_slug);

INSERT INTO plan_objects (id, network_id, kind, slug, name, document, format)
SELECT gen_random_uuid(), o.id, 'network', 'network', o.name,
  jsonb_strip_nulls(jsonb_build_object('name', o.name, 'defaultDurationMs', o.default_duration_ms, 'backdrop', ${backdrop})), 1
FROM networks o;
${moved('calendar', 'calendars', `jsonb_build_object('dates', o.dates, 'holidays', o.holidays)`, `'network'`)}
${moved(
  'media',
  'media',
  `jsonb_build_object('kind', o.kind, 'width', o.width, 'height', o.height, 'bytes', o.bytes, 'durationMs', o.duration_ms,
    'tags', to_jsonb(o.tags), 'added', ${instant('o.added')}, 'when', o."when", 'sha256', o.asset_sha256, 'type', o.type)`,
  'NULL',
)}
${moved(
  'playlist',
  'playlists',
  `jsonb_build_object('items', coalesce((SELECT jsonb_agg(jsonb_strip_nulls(jsonb_build_object(
      'media', ${slugOf('media', 'i.media_id')}, 'playlist', ${slugOf('playlists', 'i.nested_id')}, 'collect', i.collect, 'order', i."order",
      'limit', i."limit", 'durationMs', i.duration_ms, 'where', i.selector, 'when', i."when")) ORDER BY i.position)
    FROM playlist_items i WHERE i.playlist_id = o.id), '[]'))`,
  `'network'`,
)}
${moved(
  'site',
  'sites',
  `jsonb_build_object('timeZone', o.time_zone, 'tags', to_jsonb(o.tags), 'hours', o.hours, 'backdrop', ${backdrop},
    'location', CASE WHEN o.latitude IS NULL OR o.longitude IS NULL THEN NULL ELSE jsonb_build_object('latitude', o.latitude, 'longitude', o.longitude) END)`,
  `'network'`,
)}
${moved(
  'screen',
  'screens',
  `jsonb_build_object('site', s.slug, 'width', o.width, 'height', o.height, 'tags', to_jsonb(o.tags), 'lightsOut', o.lights_out, 'backdrop', ${backdrop})`,
  's.slug',
  'JOIN sites s ON s.id = o.site_id',
)}
${moved(
  'booking',
  'bookings',
  `jsonb_build_object('content', ${content('o.media_id', 'o.playlist_id', 'o.duration_ms')}, 'where', o.selector, 'priority', o.priority,
    'takeover', o.takeover, 'wake', o.wake, 'onHold', o.on_hold, 'created', ${instant('o.created')}, 'when', o."when")`,
  `'network'`,
)}
${links}

CREATE TABLE media_files (
  media_id uuid PRIMARY KEY,
  network_id uuid NOT NULL,
  original_sha256 text NOT NULL REFERENCES files,
  asset_sha256 text NOT NULL REFERENCES files,
  thumbnail_sha256 text NOT NULL REFERENCES files,
  codec text,
  FOREIGN KEY (network_id, media_id) REFERENCES plan_objects (network_id, id) ON DELETE CASCADE
);
CREATE INDEX media_files_original ON media_files (network_id, original_sha256);
CREATE INDEX media_files_asset ON media_files (network_id, asset_sha256);
CREATE INDEX media_files_thumbnail ON media_files (network_id, thumbnail_sha256);
INSERT INTO media_files SELECT id, network_id, original_sha256, asset_sha256, thumbnail_sha256, codec FROM media
WHERE num_nonnulls(original_sha256, asset_sha256, thumbnail_sha256) = 3;

ALTER TABLE players DROP CONSTRAINT players_network_id_screen_id_fkey,
  ADD FOREIGN KEY (network_id, screen_id) REFERENCES plan_objects (network_id, id) ON DELETE CASCADE;
ALTER TABLE pairings DROP CONSTRAINT pairings_screen_id_fkey,
  ADD FOREIGN KEY (screen_id) REFERENCES plan_objects ON DELETE CASCADE;
ALTER TABLE uploads DROP CONSTRAINT uploads_media_id_fkey,
  ADD FOREIGN KEY (media_id) REFERENCES plan_objects ON DELETE SET NULL;

ALTER TABLE changes ADD COLUMN format integer NOT NULL DEFAULT 1, DROP CONSTRAINT changes_kind_check,
  ADD CONSTRAINT changes_kind_check CHECK (kind ~ '^[a-z]{1,40}$');
ALTER TABLE changes ALTER COLUMN format DROP DEFAULT;
ALTER TABLE editions ADD COLUMN format integer NOT NULL DEFAULT 1;
ALTER TABLE editions ALTER COLUMN format DROP DEFAULT;

ALTER TABLE networks DROP COLUMN name, DROP COLUMN default_duration_ms, DROP COLUMN backdrop_media_id,
  DROP COLUMN backdrop_playlist_id, DROP COLUMN backdrop_duration_ms;
DROP TABLE playlist_items, bookings, screens, sites, playlists, media, calendars;
`;

/** The tables before held fewer kinds and no entries' ids: what came since could not go back into them. */
export const down = `DO $$ BEGIN RAISE EXCEPTION 'This step can’t be undone: restore a backup made before it.'; END $$;`;
