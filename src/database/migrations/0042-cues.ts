/**
 * Firings of cues are facts beside the plan: which, when, and on which screens (null: on all that its bookings reach). `until` is when the
 * last of them ends by itself. `origin` says by what: a person, a key, a board, a screen. Presses that were passed over, because
 * they came too often, are counted. A board opens by a link, for one person or one place, and may be for some people alone.
 */
export const up = `
CREATE TABLE cue_firings (
  id uuid PRIMARY KEY,
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  cue text NOT NULL,
  name text NOT NULL,
  at timestamptz NOT NULL,
  until timestamptz NOT NULL,
  late_after timestamptz NOT NULL,
  ends boolean NOT NULL DEFAULT false,
  selector text,
  screens text[],
  origin text NOT NULL,
  said text,
  fired_by uuid REFERENCES people ON DELETE SET NULL,
  idempotency_key text,
  received_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (network_id, idempotency_key)
);
CREATE INDEX cue_firings_newest ON cue_firings (network_id, at DESC);
CREATE TABLE cue_floods (
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  cue text NOT NULL,
  said text NOT NULL,
  since timestamptz NOT NULL,
  last timestamptz NOT NULL,
  count integer NOT NULL,
  PRIMARY KEY (network_id, cue, said)
);
CREATE TABLE board_links (
  id uuid PRIMARY KEY,
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  board text NOT NULL,
  name text NOT NULL,
  token_hash text NOT NULL UNIQUE,
  made_by uuid REFERENCES people ON DELETE SET NULL,
  made_at timestamptz NOT NULL DEFAULT now(),
  used_at timestamptz
);
CREATE INDEX board_links_of ON board_links (network_id, board);
CREATE TABLE board_people (
  network_id uuid NOT NULL REFERENCES networks ON DELETE CASCADE,
  board text NOT NULL,
  person_id uuid NOT NULL REFERENCES people ON DELETE CASCADE,
  PRIMARY KEY (network_id, board, person_id)
);`;

export const down = `DROP TABLE board_people; DROP TABLE board_links; DROP TABLE cue_floods; DROP TABLE cue_firings;`;
