import { rows, rowsOfMany, transaction } from '@/database';
import { newNetwork, useDatabase } from '../tests/database';

useDatabase();

const USERS = `EXPLAIN SELECT l.from_slug FROM plan_links l
  JOIN jsonb_to_recordset($2::jsonb) AS k(kind text, id text) ON l.to_kind = k.kind AND l.to_slug = k.id
  JOIN plan_objects o ON o.network_id = l.network_id AND o.kind = l.from_kind AND o.slug = l.from_slug WHERE l.network_id = $1`;
const keys = JSON.stringify([{ kind: 'media', id: 'one' }]);

/** The tables are empty and were never counted, as just before a large import: PostgreSQL takes everything for small. */
test('a long list of keys is never compared one by one with a table that was taken for small', async () => {
  const { networkId } = await newNetwork();
  const planned = (count: number) =>
    transaction(async (within) => {
      const lines = await rowsOfMany<{ 'QUERY PLAN': string }>(USERS, [networkId, keys], count, within);
      const after = await rows("SELECT current_setting('enable_nestloop') AS nested", [], within);
      expect(after).toEqual([{ nested: 'on' }]);
      return lines.map((line) => line['QUERY PLAN']).join('\n');
    });
  expect(await planned(10)).toContain('Nested Loop');
  expect(await planned(500)).not.toContain('Nested Loop');
});
