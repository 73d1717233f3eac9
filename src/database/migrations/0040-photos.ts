/** A photo of the place where a screen hangs, for each screen that has one: JPEG. */
export const up = `
CREATE TABLE screen_photos (
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  screen text NOT NULL,
  added_at timestamptz NOT NULL,
  picture bytea NOT NULL,
  PRIMARY KEY (network_id, screen)
);`;

export const down = `DROP TABLE screen_photos;`;
