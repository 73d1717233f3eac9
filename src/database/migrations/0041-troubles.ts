/** Since when each trouble of a screen stands, by its kind (`troubleKind`): what is over is deleted. */
export const up = `
CREATE TABLE screen_troubles (
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  screen text NOT NULL,
  kind text NOT NULL,
  since timestamptz NOT NULL,
  PRIMARY KEY (network_id, screen, kind)
);`;

export const down = `DROP TABLE screen_troubles;`;
