import {
  MINUTE,
  SECOND,
  drawnIn,
  drawnOnly,
  forecast,
  type Instant,
  type Play,
  type ProgramDocument,
  type Segment,
} from '@/core/playing';
import type { Report } from '@/protocol/schemas';
import type { Seen, Stage, Thing } from './stage';

/** How long the plays that were worked out last: then they are worked out again. */
const AHEAD_MS = 10 * MINUTE;
/** How long before its turn an item is loaded. */
const PREPARE_MS = 5_000;
/** How often it is looked whether the clock has jumped, and whether the stage shows what is due. */
const WATCH_MS = SECOND;
/** The corrected time is measured with each answer of the server, and differs a little each time. More than this is a jump. */
const JUMP_MS = 500;
/** How long the stage may show something else than what is due; and how long where that is loading, or could not be shown. */
const STILL_MS = 5 * SECOND;
const PATIENT_MS = 30 * SECOND;

/** So long before a change it is worked out what it will be. */
const EARLY_MS = 100;

/** What a stage shows when, over `[from, to)`: a program's forecast, or that of a zone in it. */
export type Timeline = (
  program: ProgramDocument,
  from: Instant,
  to: Instant,
) => { readonly segments: readonly Segment[]; readonly plays: readonly Play[] };

export const wholeProgram: Timeline = (program, from, to) => forecast(program, from, to, { plays: true, zones: false });

/** What is drawn of a play. Throws where the program doesn't have it. */
export type Draw = (program: ProgramDocument, play: Play, segment: Segment) => Thing;

/** Files alone: what more there is, `scene.ts` draws. */
export const drawFile: Draw = (program, play) => {
  const { id } = drawnIn(play);
  const asset = play.media === undefined ? undefined : program.assets[id];
  if (!asset || asset.kind === 'sound') throw new Error(`“${id}” is missing in the program.`);
  return { name: id, asset };
};

/** What is due at an instant. */
interface Due {
  readonly at: number;
  readonly program: ProgramDocument;
  readonly segment: Segment;
  readonly play: Play | undefined;
  /** What plays after it. */
  readonly next: Play | undefined;
  /** When the next change is. */
  readonly until: number;
}

export type Scene = 'playing' | 'resting' | 'empty';

/** Holds the stage to the program's forecast: asks the core what is on, prepares what comes, and switches on the instant. */
export class Conductor {
  private program: ProgramDocument | null = null;
  /** What takes over at an instant. */
  private coming: { readonly at: number; readonly program: ProgramDocument } | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private turn = 0;
  /** Counts what was put on the stage: a show that is overtaken while it loads is dropped. */
  private wanted = 0;
  private current: { play: Play; segment: Segment; version: string | undefined } | null = null;
  private scene: Scene = 'empty';
  /** To what that is seen belongs, and since when it does. */
  private onAir: (Pick<Segment, 'source' | 'id'> & { readonly since: number }) | null = null;
  /** What is on was asked for, and is not to be seen yet; or it could not be shown. */
  private loading = false;
  private failed = false;
  /** Both clocks as they were at the last look, and where a film stood. */
  private looked: { readonly now: number; readonly steady: number; readonly filmAtMs: number | null } | null = null;
  /** Since when the stage does not show what is due, by the steady clock; null while it does. */
  private stillSince: number | null = null;
  private patienceMs = STILL_MS;

  /**
   * `now` is the corrected time, which may jump; `steady` one that never does, from anywhere; both in milliseconds. It looks after the
   * stage until `stop`.
   */
  constructor(
    private readonly stage: Pick<Stage, 'prepare' | 'show' | 'clear' | 'seen'>,
    private readonly now: () => number,
    private readonly onScene: (scene: Scene) => void,
    private readonly onFailure: (message: string) => void,
    private readonly steady: () => number = () => performance.now(),
    /** A takeover has come to be seen, or gone. */
    private readonly onTakeover: () => void = () => undefined,
    /** Whether what is seen is a drill. */
    private readonly onDrill: (is: boolean) => void = () => undefined,
    /** What is drawn of a play, and what plays when, where that isn't the program's forecast. */
    private readonly draw: Draw = drawFile,
    private readonly timeline: Timeline = wholeProgram,
  ) {
    this.watching = setInterval(() => this.watch(), WATCH_MS);
  }

  private readonly watching: ReturnType<typeof setInterval>;

  stop(): void {
    clearInterval(this.watching);
    clearTimeout(this.timer);
    this.turn++;
    this.wanted++;
  }

  play(program: ProgramDocument | null): void {
    this.program = program;
    this.step();
  }

  /** Makes ready what is due first in a program that is to be played. Resolves when it is, or can't be. */
  async prepareFirst(program: ProgramDocument): Promise<void> {
    const at = this.now();
    const { play, segment } = this.playAt(program, at);
    const thing = play && this.thing(program, play, segment);
    if (thing) await this.stage.prepare(thing, filmAt(play, at));
  }

  /** What takes over at an instant, with all that it shows at first: it is made ready, and switched to on the instant. Null for nothing. */
  follow(coming: { readonly at: number; readonly program: ProgramDocument } | null): void {
    this.coming = coming;
    if (this.program) this.step();
  }

  /** Something that could not be shown may be here now. */
  look(): void {
    if (this.failed) this.anew();
  }

  /** What plays, for the heartbeat. */
  playing(): Pick<Report, 'playing' | 'state'> {
    const { current, scene, onAir } = this;
    const isOnAir = onAir !== null && onAir.source === current?.segment.source && onAir.id === current.segment.id;
    return {
      state: scene,
      playing:
        current && scene === 'playing'
          ? {
              ...{ ...drawnOnly(current.play), source: current.segment.source, id: current.segment.id },
              ...(isOnAir ? { since: onAir.since } : {}),
            }
          : null,
    };
  }

  /** Everything as if it were the first time: what is on is shown from where it is by now. */
  private anew(): void {
    this.current = null;
    this.stillSince = null;
    this.step();
  }

  /** If the clock has jumped, works out again what is due. If the stage has stopped, reports it. */
  private watch(): void {
    const before = this.looked;
    const [now, steady] = [this.now(), this.steady()];
    const seen = this.stage.seen();
    this.looked = { now, steady, filmAtMs: seen?.film?.atMs ?? null };
    if (!this.program || !before) return;
    if (Math.abs(now - before.now - (steady - before.steady)) > JUMP_MS) return this.jumped(now, seen);
    const { play } = this.playAt(this.program, Math.round(now));
    if (isDue(play, seen, now, before.filmAtMs)) {
      this.stillSince = null;
      this.patienceMs = STILL_MS;
      return;
    }
    this.stillSince ??= steady;
    const still = steady - this.stillSince;
    if (still < (this.loading || this.failed ? PATIENT_MS : this.patienceMs)) return;
    // If that didn't help it may take longer, so it is reported again only after a while.
    this.patienceMs = PATIENT_MS;
    if (!this.failed)
      this.onFailure(
        play
          ? `“${drawnIn(play).id}” was due but didn’t show for ${Math.round(still / SECOND)} s, so it is being started again.`
          : `“${seen?.media ?? ''}” was still showing ${Math.round(still / SECOND)} s after its end, so it was removed.`,
      );
    this.anew();
  }

  /** What is on still goes on, but a film of which another moment is due. */
  private jumped(now: number, seen: Seen | null): void {
    const dueMs = this.current ? filmAt(this.current.play, now) : 0;
    if (seen?.film && Math.abs(seen.film.atMs - dueMs) > JUMP_MS) this.current = null;
    this.step();
  }

  /** Brings the stage to this instant. */
  private step(): void {
    clearTimeout(this.timer);
    const due = this.dueAt(this.now());
    if (due) this.begin(due);
    else {
      this.turn++;
      this.rest('empty');
    }
  }

  /** What is due at an instant, and until when: takes some milliseconds to work out. Null without a program. */
  private dueAt(at: number): Due | null {
    const isNext = this.coming !== null && this.coming.at <= at;
    const program = isNext ? (this.coming?.program ?? null) : this.program;
    if (!program) return null;
    // Farther than to the next step: what begins right after it is to be prepared before.
    const { segments, plays } = this.timeline(program, at, at + AHEAD_MS + 2 * PREPARE_MS);
    const segment = segments[0] as Segment;
    const play = plays.find((one) => one.from <= at && at < one.to);
    const next = plays.find((one) => one.from > at);
    const begins = isNext ? Infinity : (this.coming?.at ?? Infinity);
    const until = Math.min(play?.to ?? next?.from ?? Infinity, segment.to, at + AHEAD_MS, begins);
    return { at, program, segment, play, next, until };
  }

  /** Shows what is due, and sets the timer for the next change. */
  private begin({ at, program, segment, play, next, until }: Due): void {
    this.program = program;
    if (this.coming && this.coming.at <= at) this.coming = null;
    const turn = ++this.turn;
    this.timer = setTimeout(() => this.comeUp(until), until - this.now() - EARLY_MS);
    this.put(play, segment);
    // After what is on now has taken what was prepared of it: one at a time is.
    const { coming } = this;
    if (coming && coming.at <= (next?.from ?? Infinity)) {
      const first = coming.at < at + AHEAD_MS + 2 * PREPARE_MS ? this.playAt(coming.program, coming.at) : null;
      if (first?.play && !(play && isSame(first.play, play)))
        this.prepareAt(first.play, first.segment, coming.at - PREPARE_MS, turn, coming.program);
    } else if (next) {
      const later = next.from < segment.to ? segment : this.playAt(program, next.from).segment;
      this.prepareAt(next, later, next.from - PREPARE_MS, turn);
    }
  }

  /** Works out what is due at an instant shortly before it, so that nothing but the switch is left to do then: displays side by side switch together. */
  private comeUp(at: number): void {
    // The clock was put right in between: nothing is to be switched to on the instant.
    if (at - this.now() > JUMP_MS) return void (this.timer = setTimeout(() => this.step(), EARLY_MS));
    const due = this.dueAt(at);
    this.timer = setTimeout(
      () => {
        const isNow = Math.abs(this.now() - at) < JUMP_MS;
        if (due && isNow) this.begin(due);
        else this.step();
      },
      Math.max(0, at - this.now()),
    );
  }

  /** Puts on the stage what is on; what is on already goes on, unless the program says something else of it now. */
  private put(play: Play | undefined, segment: Segment): void {
    if (!play) return this.rest(segment.source === 'lights-out' ? 'resting' : 'empty');
    const version = this.program ? this.thing(this.program, play, segment)?.version : undefined;
    const same = this.current !== null && isSame(this.current.play, play) && this.current.version === version;
    this.current = { play, segment, version };
    if (!same) void this.show(play, segment, ++this.wanted);
    else if (!this.loading) this.note(segment);
  }

  /** Reports which booking or backdrop is seen, and since when. */
  private note({ source, id }: Segment): void {
    const { onAir } = this;
    if (onAir?.source === source && onAir.id === id) return;
    this.onAir = { source, id, since: Math.round(this.now()) };
    this.onDrill(source === 'takeover' && this.program?.bookings.find((one) => one.id === id)?.drill === true);
    if (source === 'takeover' || onAir?.source === 'takeover') this.onTakeover();
  }

  private async show(play: Play, segment: Segment, wanted: number): Promise<void> {
    const current = () => wanted === this.wanted;
    this.loading = true;
    try {
      if (!this.program) return;
      const thing = this.draw(this.program, play, segment);
      const look = this.program.loops[play.loop]?.[play.item];
      const at = () => filmAt(play, this.now());
      await this.stage.show(thing, at, current, look, () => this.now() - play.start);
      if (!current()) return;
      this.failed = false;
      this.note(segment);
      this.setScene('playing');
    } catch (error) {
      this.failed = true;
      this.onFailure(error instanceof Error ? error.message : String(error));
    } finally {
      if (current()) this.loading = false;
    }
  }

  private prepareAt(play: Play, segment: Segment, at: number, turn: number, program = this.program): void {
    const prepare = () => {
      const thing = program && turn === this.turn ? this.thing(program, play, segment) : null;
      if (thing) void this.stage.prepare(thing, play.fromMs);
    };
    const wait = at - this.now();
    if (wait <= 0) prepare();
    else setTimeout(prepare, Math.min(wait, AHEAD_MS));
  }

  /** What a play needs drawn; null where the program doesn't have it: that is reported when its turn comes. */
  private thing(program: ProgramDocument, play: Play, segment: Segment) {
    try {
      return this.draw(program, play, segment);
    } catch {
      return null;
    }
  }

  private playAt(program: ProgramDocument, at: Instant): { readonly segment: Segment; readonly play: Play | null } {
    const { segments, plays } = this.timeline(program, at, at + 1);
    return { segment: segments[0] as Segment, play: plays[0] ?? null };
  }

  private rest(scene: 'resting' | 'empty'): void {
    this.current = null;
    this.wanted++;
    this.loading = false;
    if (this.onAir?.source === 'takeover') this.onTakeover();
    this.onAir = null;
    this.onDrill(false);
    this.stage.clear();
    this.setScene(scene);
  }

  private setScene(scene: Scene): void {
    this.scene = scene;
    this.onScene(scene);
  }
}

/** Whether it is the same turn of the same thing. */
const isSame = (a: Play, b: Play) => {
  const [one, other] = [drawnIn(a), drawnIn(b)];
  return one.kind === other.kind && one.id === other.id && a.start === b.start;
};

/** The position in a play's video at an instant, in milliseconds. */
const filmAt = (play: Play, now: number) => now - play.start + play.fromMs;

/** Whether the stage shows what is due. A film moves, but at its end: there its last frame may stand. */
function isDue(play: Play | null, seen: Seen | null, now: number, filmAtMs: number | null): boolean {
  if (!play) return seen === null;
  if (seen?.media !== drawnIn(play).id) return false;
  const { film } = seen;
  return !film || filmAt(play, now) > film.lengthMs - SECOND || film.atMs !== filmAtMs;
}
