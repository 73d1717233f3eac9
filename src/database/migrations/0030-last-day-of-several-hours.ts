import { INDEXED_BY_SETS, INDEXED_FOLDED } from './0012-archive-and-versions';

/**
 * A file may be available in several sets of hours, and hours may end days after they begin: its last day is the last of all. Before, only
 * the last day of a single set was looked at. No file has more than that yet, so nothing is indexed again.
 */
export const up = `
CREATE FUNCTION last_day_of(available jsonb) RETURNS date LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
  SELECT CASE WHEN bool_and(coalesce(hours->>'to', '') ~ '^[0-9]{4}-[0-9]{2}-[0-9]{2}')
    THEN max(left(hours->>'to', 10)::date + longest) END
  FROM jsonb_array_elements(coalesce(available->'any', jsonb_build_array(available))) AS hours,
    LATERAL (SELECT coalesce(max((one->>2)::integer), 0) AS longest
      FROM jsonb_array_elements(coalesce(hours->'windows', '[]')) AS one) AS windows
$$;
${INDEXED_BY_SETS}
`;

export const down = `
${INDEXED_FOLDED}
DROP FUNCTION last_day_of(jsonb);
`;
