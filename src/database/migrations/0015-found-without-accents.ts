import { INDEXED_FOLDED, INDEXED_WITH_ARCHIVED } from './0012-archive-and-versions';

/** Files are found whatever the accents: "cafe" is a part of "Café menu", "brennoy" of "Brennøy". */
export const up = `
CREATE EXTENSION IF NOT EXISTS unaccent;
CREATE FUNCTION folded(text) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE STRICT AS
  $$ SELECT lower(public.unaccent('public.unaccent', lower(normalize($1, NFC) COLLATE "und-x-icu")) COLLATE "und-x-icu") $$;
${INDEXED_FOLDED}
UPDATE plan_objects SET name = name WHERE kind = 'media';
`;

export const down = `
${INDEXED_WITH_ARCHIVED}
DROP FUNCTION folded(text);
UPDATE plan_objects SET name = name WHERE kind = 'media';
`;
