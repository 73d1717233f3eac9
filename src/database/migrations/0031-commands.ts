/**
 * Commands to players: what, by whom, until when; and how it went on each screen. A screen without an outcome after the command has expired
 * did not get it in time. The same idempotency key sends once.
 */
export const up = `
CREATE TABLE commands (
  id uuid PRIMARY KEY,
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  kind text NOT NULL,
  percent smallint,
  degrees smallint,
  sent_at timestamptz NOT NULL,
  sent_by uuid REFERENCES people ON DELETE SET NULL,
  by_key boolean NOT NULL,
  idempotency_key text,
  UNIQUE (network_id, idempotency_key)
);
CREATE INDEX commands_network ON commands (network_id, sent_at DESC);

CREATE TABLE command_screens (
  command_id uuid NOT NULL REFERENCES commands ON DELETE CASCADE,
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  screen text NOT NULL,
  site text,
  number integer,
  due_at timestamptz NOT NULL,
  expires_at timestamptz NOT NULL CHECK (expires_at > due_at),
  received_at timestamptz,
  ended_at timestamptz,
  outcome text CHECK (outcome IN ('done', 'failed', 'cancelled')),
  said text,
  PRIMARY KEY (command_id, screen),
  CHECK ((outcome IS NULL) = (ended_at IS NULL))
);
CREATE INDEX command_screens_open ON command_screens (network_id, expires_at) WHERE outcome IS NULL;
CREATE INDEX command_screens_screen ON command_screens (network_id, screen);
`;

export const down = `DROP TABLE command_screens, commands;`;
