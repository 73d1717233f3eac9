/**
 * How screens and their players were: the instants at which a screen's state changed, and what its player measured every few minutes, an
 * hour in a row.
 */
export const up = `
CREATE TABLE screen_states (
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  screen text NOT NULL,
  at timestamptz NOT NULL,
  state text NOT NULL CHECK (state IN ('lit', 'behind', 'dark', 'resting', 'unpaired')),
  PRIMARY KEY (network_id, screen, at)
);
CREATE INDEX screen_states_at ON screen_states (at);

CREATE TABLE screen_health (
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  screen text NOT NULL,
  hour timestamptz NOT NULL,
  samples jsonb NOT NULL,
  PRIMARY KEY (network_id, screen, hour)
);
CREATE INDEX screen_health_hour ON screen_health (hour);
`;

export const down = `DROP TABLE screen_health, screen_states;`;
