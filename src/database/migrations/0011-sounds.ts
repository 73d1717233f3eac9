import { INDEXED } from './0010-media-index';

/** What is written of each file, before files could be archived. */
export const INDEXED_WITH_SOUNDS = `
CREATE OR REPLACE FUNCTION index_media() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
  low text := lower(NEW.name COLLATE "und-x-icu");
  tag text[] := ARRAY(SELECT lower(value COLLATE "und-x-icu") FROM jsonb_array_elements_text(coalesce(NEW.document->'tags', '[]')));
  w integer := (NEW.document->>'width')::integer;
  h integer := (NEW.document->>'height')::integer;
  shape text := CASE WHEN w = h THEN 'is:square' WHEN w > h THEN 'is:landscape' WHEN w < h THEN 'is:portrait' END;
  last text := NEW.document->'when'->>'to';
BEGIN
  INSERT INTO media_index VALUES (
    NEW.id, NEW.network_id, NEW.slug, low, tag,
    array_remove(tag || ('kind:' || (NEW.document->>'kind')) || shape, NULL),
    low || (SELECT coalesce(string_agg(E'\\n' || one, ''), '') FROM unnest(tag) AS one),
    NEW.document->>'kind', w, h, (NEW.document->>'added')::timestamptz,
    CASE WHEN last ~ '^[0-9]{4}-[0-9]{2}-[0-9]{2}' THEN left(last, 10)::date END,
    NEW.document->>'kind' = 'sound' OR coalesce((NEW.document->>'audio')::boolean, false))
  ON CONFLICT (media_id) DO UPDATE SET (slug, name, tags, terms, words, kind, width, height, added, last_day, audible) =
    (EXCLUDED.slug, EXCLUDED.name, EXCLUDED.tags, EXCLUDED.terms, EXCLUDED.words, EXCLUDED.kind, EXCLUDED.width, EXCLUDED.height,
     EXCLUDED.added, EXCLUDED.last_day, EXCLUDED.audible);
  RETURN NULL;
END $$;`;

/** Sounds have no size; what is heard can be searched for. */
export const up = `
ALTER TABLE media_index ALTER COLUMN width DROP NOT NULL, ALTER COLUMN height DROP NOT NULL,
  ADD COLUMN audible boolean NOT NULL DEFAULT false;

${INDEXED_WITH_SOUNDS}

UPDATE plan_objects SET name = name WHERE kind = 'media';
`;

/** What an older release can't index is taken out of the index; the files stay. */
export const down = `
DELETE FROM media_index WHERE width IS NULL;
ALTER TABLE media_index DROP COLUMN audible, ALTER COLUMN width SET NOT NULL, ALTER COLUMN height SET NOT NULL;
${INDEXED}
`;
