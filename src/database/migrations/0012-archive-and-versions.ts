import { INDEXED_WITH_SOUNDS } from './0011-sounds';

/**
 * What is written of each file: `name` is how its name is found, and `found` how its other words are. `media_files.text` holds words in
 * small letters, each on a line of its own. `last` is the last day on which it is available, as text.
 */
const indexed = (name: string, found: (words: string) => string, last = "NEW.document->'when'->>'to'") => `
CREATE OR REPLACE FUNCTION index_media() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
  low text := ${name};
  tag text[] := ARRAY(SELECT lower(value COLLATE "und-x-icu") FROM jsonb_array_elements_text(coalesce(NEW.document->'tags', '[]')));
  w integer := (NEW.document->>'width')::integer;
  h integer := (NEW.document->>'height')::integer;
  shape text := CASE WHEN w = h THEN 'is:square' WHEN w > h THEN 'is:landscape' WHEN w < h THEN 'is:portrait' END;
  last text := ${last};
  said text := (SELECT f.text FROM media_files f WHERE f.media_id = NEW.id);
BEGIN
  INSERT INTO media_index VALUES (
    NEW.id, NEW.network_id, NEW.slug, low, tag,
    array_remove(tag || ('kind:' || (NEW.document->>'kind')) || shape, NULL),
    low || ${found(`(SELECT coalesce(string_agg(E'\\n' || one, ''), '') FROM unnest(tag) AS one) || coalesce(said, '')`)},
    NEW.document->>'kind', w, h, (NEW.document->>'added')::timestamptz,
    CASE WHEN last ~ '^[0-9]{4}-[0-9]{2}-[0-9]{2}' THEN left(last, 10)::date END,
    NEW.document->>'kind' = 'sound' OR coalesce((NEW.document->>'audio')::boolean, false),
    coalesce((NEW.document->>'archived')::boolean, false))
  ON CONFLICT (media_id) DO UPDATE SET (slug, name, tags, terms, words, kind, width, height, added, last_day, audible, archived) =
    (EXCLUDED.slug, EXCLUDED.name, EXCLUDED.tags, EXCLUDED.terms, EXCLUDED.words, EXCLUDED.kind, EXCLUDED.width, EXCLUDED.height,
     EXCLUDED.added, EXCLUDED.last_day, EXCLUDED.audible, EXCLUDED.archived);
  RETURN NULL;
END $$;`;

export const INDEXED_WITH_ARCHIVED = indexed('lower(NEW.name COLLATE "und-x-icu")', (words) => words);
/** As it is with 0015. */
export const INDEXED_FOLDED = indexed('folded(NEW.name)', (words) => `folded(${words})`);
/** As it is with 0030. */
export const INDEXED_BY_SETS = indexed(
  'folded(NEW.name)',
  (words) => `folded(${words})`,
  "last_day_of(NEW.document->'when')::text",
);

/**
 * Files and playlists are archived; files are replaced by new versions, and the old ones kept for a time; the words on a document's pages
 * are searched; and each network says how long it keeps what it could go back to.
 */
export const up = `
ALTER TABLE networks ADD COLUMN kept_editions integer NOT NULL DEFAULT 200 CHECK (kept_editions BETWEEN 1 AND 10000),
  ADD COLUMN kept_days integer NOT NULL DEFAULT 400 CHECK (kept_days BETWEEN 1 AND 4000);

CREATE TABLE media_versions (
  id uuid PRIMARY KEY,
  media_id uuid NOT NULL REFERENCES plan_objects ON DELETE CASCADE,
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  original_sha256 text NOT NULL REFERENCES files,
  asset_sha256 text NOT NULL REFERENCES files,
  thumbnail_sha256 text NOT NULL REFERENCES files,
  codec text,
  text text,
  document jsonb NOT NULL,
  format integer NOT NULL,
  replaced_at timestamptz NOT NULL DEFAULT now(),
  person_id uuid REFERENCES people ON DELETE SET NULL,
  UNIQUE (media_id, asset_sha256)
);
CREATE INDEX media_versions_original ON media_versions (original_sha256);
CREATE INDEX media_versions_asset ON media_versions (asset_sha256);
CREATE INDEX media_versions_thumbnail ON media_versions (thumbnail_sha256);

ALTER TABLE uploads ADD COLUMN replaces uuid REFERENCES plan_objects ON DELETE SET NULL;

ALTER TABLE media_files ADD COLUMN text text;
ALTER TABLE media_index ADD COLUMN archived boolean NOT NULL DEFAULT false;
${INDEXED_WITH_ARCHIVED}

CREATE FUNCTION index_page_text() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  UPDATE plan_objects SET name = name WHERE id = NEW.media_id;
  RETURN NULL;
END $$;
CREATE TRIGGER index_new_text AFTER INSERT ON media_files
  FOR EACH ROW WHEN (NEW.text IS NOT NULL) EXECUTE FUNCTION index_page_text();
CREATE TRIGGER index_other_text AFTER UPDATE ON media_files
  FOR EACH ROW WHEN (NEW.text IS DISTINCT FROM OLD.text) EXECUTE FUNCTION index_page_text();
`;

export const down = `
DROP TRIGGER index_new_text ON media_files;
DROP TRIGGER index_other_text ON media_files;
DROP FUNCTION index_page_text();
${INDEXED_WITH_SOUNDS}
ALTER TABLE media_index DROP COLUMN archived;
ALTER TABLE media_files DROP COLUMN text;
ALTER TABLE uploads DROP COLUMN replaces;
DROP TABLE media_versions;
ALTER TABLE networks DROP COLUMN kept_editions, DROP COLUMN kept_days;
`;
