import type { Outcome } from '@/core/commands';
import type { OpenAPIHono } from '@hono/zod-openapi';
import type { OpenFile, StoredFile } from './file-response';
import type { MessageKind } from './messages';
import type { Press, Report, Target } from './schemas';

/** What is to be told of on the stream of events. */
export type Woken = MessageKind;

/** What the protocol needs done. `P` is whatever identifies a player. */
export interface PlayerBackend<P> {
  /** Throws a Refusal 403 for an enrolment key that is none, or is over. */
  startPairing(
    address: string,
    enrolling?: { key: string; serial: string; software?: string | undefined },
    was?: string,
  ): Promise<{ deviceCode: string; userCode: string; expiresIn: number; interval: number; number?: number }>;
  collectToken(deviceCode: string): Promise<{ token: string } | 'pending' | 'expired'>;
  playerOf(token: string): Promise<P | null>;
  targetOf(player: P): Promise<Target>;
  /** A program's canonical text, or null where this player may not have it. */
  programText(player: P, hash: string): Promise<string | null>;
  /** A file that this player may have, or null. */
  fileOf(player: P, sha256: string): Promise<StoredFile | null>;
  openFile: OpenFile;
  heartbeat(player: P, report: Report): void;
  /** Writes down how commands went, as far as they are this player’s. */
  noteOutcomes(player: P, outcomes: readonly Outcome[]): Promise<void>;
  /** Writes down what was pressed at the player’s screen. */
  noteFirings(player: P, presses: readonly Press[]): Promise<void>;
  /** Stores a picture of the player’s screen. Throws a Refusal for a private screen, for a body that isn't a picture, and for too many. */
  takeGlimpse(player: P, picture: Uint8Array, taken: { at: number; program?: string | undefined }): Promise<void>;
  /** Calls `wake` whenever the player's target may have changed, it was unpaired, or is asked to hurry. Returns how to stop. */
  onChange(player: P, wake: (what: Woken) => void): () => void;
  logError(error: unknown): void;
}

/** What the token's check leaves for what comes behind it. */
export interface PlayerEnv<P> {
  Variables: { player: P; token: string };
}

export type PlayerApp<P> = OpenAPIHono<PlayerEnv<P>>;
