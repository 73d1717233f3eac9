/** What is written of each file, before sounds were known. */
export const INDEXED = `
CREATE OR REPLACE FUNCTION index_media() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
  low text := lower(NEW.name COLLATE "und-x-icu");
  tag text[] := ARRAY(SELECT lower(value COLLATE "und-x-icu") FROM jsonb_array_elements_text(coalesce(NEW.document->'tags', '[]')));
  w integer := (NEW.document->>'width')::integer;
  h integer := (NEW.document->>'height')::integer;
  last text := NEW.document->'when'->>'to';
BEGIN
  INSERT INTO media_index VALUES (
    NEW.id, NEW.network_id, NEW.slug, low, tag,
    tag || ('kind:' || (NEW.document->>'kind')) || (CASE WHEN w = h THEN 'is:square' WHEN w > h THEN 'is:landscape' ELSE 'is:portrait' END),
    low || (SELECT coalesce(string_agg(E'\\n' || one, ''), '') FROM unnest(tag) AS one),
    NEW.document->>'kind', w, h, (NEW.document->>'added')::timestamptz,
    CASE WHEN last ~ '^[0-9]{4}-[0-9]{2}-[0-9]{2}' THEN left(last, 10)::date END)
  ON CONFLICT (media_id) DO UPDATE SET (slug, name, tags, terms, words, kind, width, height, added, last_day) =
    (EXCLUDED.slug, EXCLUDED.name, EXCLUDED.tags, EXCLUDED.terms, EXCLUDED.words, EXCLUDED.kind, EXCLUDED.width, EXCLUDED.height,
     EXCLUDED.added, EXCLUDED.last_day);
  RETURN NULL;
END $$;`;

/**
 * What is searched of media files, kept in step with them by the database itself, whoever writes: words to be found by any part of them,
 * terms that selectors name, sizes. Folding is that of Unicode, whatever the database's own locale is.
 */
export const up = `
CREATE EXTENSION IF NOT EXISTS pg_trgm;

CREATE TABLE media_index (
  media_id uuid PRIMARY KEY REFERENCES plan_objects ON DELETE CASCADE,
  network_id uuid NOT NULL,
  slug text COLLATE "C" NOT NULL,
  name text NOT NULL,
  tags text[] NOT NULL,
  terms text[] NOT NULL,
  words text NOT NULL,
  kind text NOT NULL,
  width integer NOT NULL,
  height integer NOT NULL,
  added timestamptz NOT NULL,
  last_day date
);

${INDEXED}
CREATE TRIGGER index_media AFTER INSERT OR UPDATE OF name, slug, document ON plan_objects
  FOR EACH ROW WHEN (NEW.kind = 'media') EXECUTE FUNCTION index_media();

UPDATE plan_objects SET name = name WHERE kind = 'media';

CREATE INDEX media_index_words ON media_index USING gin (words gin_trgm_ops);
CREATE INDEX media_index_terms ON media_index USING gin (terms);
CREATE INDEX media_index_added ON media_index (network_id, added DESC, slug);
CREATE INDEX media_index_size ON media_index (network_id, width, height);
`;

export const down = `
DROP TRIGGER index_media ON plan_objects;
DROP FUNCTION index_media();
DROP TABLE media_index;
`;
