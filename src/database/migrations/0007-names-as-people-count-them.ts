/**
 * A name has so many characters as people count them, and a family or a flag is made of many code points: what is kept of it is bounded
 * by what the index of names holds (`core/plan/fields.ts`), not by its code points.
 */
export const up = `
ALTER TABLE plan_objects DROP CONSTRAINT plan_objects_name_check,
  ADD CONSTRAINT plan_objects_name_check CHECK (btrim(name) <> '' AND octet_length(name) <= 2520);
`;

export const down = `
ALTER TABLE plan_objects DROP CONSTRAINT plan_objects_name_check,
  ADD CONSTRAINT plan_objects_name_check CHECK (length(btrim(name)) BETWEEN 1 AND 120);
`;
