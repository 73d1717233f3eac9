/**
 * Glimpses: pictures of what screens showed, as their players took them, with the picture that the forecast says for the same instant. And
 * which screens a person is looking at, whose players take one every few seconds.
 */
export const up = `
CREATE TABLE glimpses (
  id uuid PRIMARY KEY,
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  screen text NOT NULL,
  taken_at timestamptz NOT NULL,
  received_at timestamptz NOT NULL,
  program text,
  picture bytea NOT NULL,
  expected bytea,
  verdict text CHECK (verdict IN ('alike', 'differs', 'black', 'unsure'))
);
CREATE INDEX glimpses_screen ON glimpses (network_id, screen, taken_at DESC);

ALTER TABLE players ADD COLUMN glimpse jsonb;

CREATE TABLE glimpse_watches (
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  screen text NOT NULL,
  until timestamptz NOT NULL,
  PRIMARY KEY (network_id, screen)
);
`;

export const down = `DROP TABLE glimpse_watches, glimpses;
ALTER TABLE players DROP COLUMN glimpse;`;
