/** What is called so, and what begins so, is found without reading the others: both stand before them. */
export const up = 'CREATE INDEX media_index_name ON media_index (network_id, name text_pattern_ops);';

export const down = 'DROP INDEX media_index_name;';
