/**
 * Takeovers that were fired: who, when, on which screens, until when; and from when to when each of these showed it, as its player said. What
 * the booking said of its time before is kept here, for the all-clear. The same idempotency key fires once.
 */
export const up = `
CREATE TABLE firings (
  id uuid PRIMARY KEY,
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  booking text NOT NULL,
  name text NOT NULL,
  fired_at timestamptz NOT NULL,
  fired_by uuid REFERENCES people ON DELETE SET NULL,
  by_key boolean NOT NULL,
  drill boolean NOT NULL,
  until timestamptz CHECK (until > fired_at),
  screens text[] NOT NULL,
  edition integer NOT NULL,
  time_before jsonb NOT NULL,
  cleared_at timestamptz CHECK (cleared_at >= fired_at),
  cleared_by uuid REFERENCES people ON DELETE SET NULL,
  cleared_by_key boolean NOT NULL DEFAULT false,
  idempotency_key text,
  UNIQUE (network_id, idempotency_key)
);
CREATE INDEX firings_network ON firings (network_id, fired_at DESC);

-- Who alone may fire a takeover; everybody, where nobody stands here.
CREATE TABLE takeover_people (
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  booking text NOT NULL,
  person_id uuid NOT NULL REFERENCES people ON DELETE CASCADE,
  PRIMARY KEY (network_id, booking, person_id)
);

CREATE TABLE firing_screens (
  firing_id uuid NOT NULL REFERENCES firings ON DELETE CASCADE,
  screen text NOT NULL,
  shown_from timestamptz NOT NULL,
  shown_to timestamptz NOT NULL CHECK (shown_to >= shown_from),
  over boolean NOT NULL DEFAULT false,
  PRIMARY KEY (firing_id, screen)
);
CREATE INDEX firing_screens_open ON firing_screens (firing_id) WHERE NOT over;
`;

export const down = `DROP TABLE firing_screens, takeover_people, firings;`;
