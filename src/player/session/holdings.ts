import equal from 'fast-deep-equal';
import { HOUR, sha256Hex, type Instant, type ProgramDocument } from '@/core/playing';
import type { Target } from '@/protocol/schemas';
import { needsOf } from './needs';
import {
  isReady,
  wantedAt,
  withoutStandIns,
  type Coming,
  type HeldFile,
  type HeldState,
  type Program,
} from './reconcile';
import type { Kept, PlayerStore } from './store';

/** What is held, for the part that draws. */
export interface HoldingsEvents {
  program(program: ProgramDocument | null): void;
  /** What follows at an instant, where all of it is here: it can be made ready to be seen. Null for nothing. */
  coming?(next: { readonly at: Instant; readonly program: ProgramDocument } | null): void;
}

/** How often to work out when files are due; also done when the corrected time jumps. */
export const NEEDS_HOLD_MS = HOUR;

/** What a player holds: programs that play, are made ready or are planned, and files; in memory, and in its store over restarts. */
export class Holdings {
  state: HeldState = { program: null, next: null, coming: [], files: new Map(), full: false };
  /** The coming programs as last told. */
  private told = '';
  private needsAt = 0;
  private saved = '';

  /** `now` is the corrected time; `report` hears what a person should know. */
  constructor(
    private readonly store: PlayerStore,
    private readonly now: () => Instant,
    private readonly events: HoldingsEvents,
    private readonly report: (message: string) => void,
  ) {}

  /** Starts with what an earlier run kept: what was shown is shown again. */
  async resume({ program, coming }: Kept): Promise<void> {
    this.state = { ...this.state, files: new Map(await this.store.files()) };
    if (program) {
      const { hash, text, edition, source } = program;
      this.play({ ...this.read(hash, text), source }, edition);
    }
    this.state = {
      ...this.state,
      coming: coming.map(({ at, hash, text, source }) => ({
        at,
        program: { ...this.read(hash, text, at), text, source },
      })),
    };
  }

  /** The screen was unpaired: what belongs to it goes, the files stay until the next program. */
  async forget(was: string): Promise<void> {
    this.state = { ...this.state, program: null, next: null, coming: [] };
    await this.keep({ token: null, was, screen: null, program: null, coming: [] });
    this.tellComing();
    this.events.program(null);
  }

  /** Keeps values that have changed. If storage fails, that is reported and the player continues. */
  async keep(values: Parameters<PlayerStore['save']>[0]): Promise<void> {
    const text = JSON.stringify(values);
    if (text === this.saved) return;
    this.saved = text;
    try {
      await this.store.save(values);
    } catch (error) {
      this.saved = '';
      this.report(`The player can’t keep its state: ${error instanceof Error ? error.message : String(error)}`);
    }
  }

  /**
   * What is no longer wanted is no longer on its way; what was planned may have its time now, or another. Throws where that can't be
   * written down.
   */
  async follow(target: Target): Promise<void> {
    const { next, coming, program } = this.state;
    const wanted = wantedAt(target, this.state, this.now());
    const held = (hash: string | null) => coming.find((one) => one.program.hash === hash);
    const planned = (target.coming ?? []).flatMap(({ at, program: hash, source }): Coming[] => {
      const then = (one: Coming) =>
        one.at === at && one.program.source === source
          ? one
          : { at, program: { ...this.needing(one.program, at), source } };
      const own = held(hash);
      // The same edition comes with other files: what is here whole stays until they are.
      const whole = coming.findLast(
        (one) => source !== undefined && one.program.source === source && isReady(one, this.state),
      );
      return [...(whole && whole !== own ? [then(whole)] : []), ...(own ? [then(own)] : [])];
    });
    // What was planned and is wanted earlier shows other things first: what it needs is worked out from now.
    const early = wanted === program?.hash ? undefined : held(wanted);
    const begun = early && (early.at > this.now() ? this.needing(early.program, this.now()) : early.program);
    this.state = {
      ...this.state,
      next: begun ?? (next && next.hash === wanted ? next : null),
      coming: planned,
    };
    this.tellComing();
    if (!equal(timesOf(planned), timesOf(coming))) await this.keepComing();
  }

  /** A program that came as text for its hash is the next to play. Throws where it came damaged. */
  bringNext(hash: string, text: string, source: string | undefined): void {
    if (sha256Hex(text) !== hash) throw new Error('The program arrived damaged, so it is being downloaded again.');
    this.state = { ...this.state, next: { ...this.read(hash, text), text, source } };
  }

  /** A planned program came as text for its hash. Throws where it came damaged, or can't be kept. */
  async bringAhead(at: Instant, hash: string, text: string, source: string | undefined): Promise<Coming> {
    if (sha256Hex(text) !== hash)
      throw new Error('The planned program arrived damaged, so it is being downloaded again.');
    const one = { at, program: { ...this.read(hash, text, at), text, source } };
    this.state = { ...this.state, coming: [...this.state.coming, one].sort((a, b) => a.at - b.at) };
    await this.keepComing();
    return one;
  }

  /** A program plays from now on, and is kept. */
  async activate({ text = '', ...program }: Program, edition: number | null): Promise<void> {
    const { coming } = this.state;
    const at = coming.find((one) => one.program.hash === program.hash)?.at;
    const kept = { program: { hash: program.hash, edition, text, source: program.source } };
    // What was planned is kept already: it begins on the instant, and is written down then.
    if (at === undefined) await this.store.save(kept);
    this.state = { ...this.state, coming: coming.filter((one) => at === undefined || one.at > at) };
    this.play(program, edition);
    this.saved = '';
    if (at === undefined) return;
    await this.store.save(kept);
    await this.keepComing();
  }

  /** The program that plays is that of a newer edition too. */
  async renumber(edition: number | null): Promise<void> {
    const { program } = this.state;
    if (!program) return;
    const kept = (await this.store.load()).program;
    if (kept?.hash === program.hash) await this.store.save({ program: { ...kept, edition } });
    this.saved = '';
    this.state = { ...this.state, program: { ...program, edition } };
  }

  async discard(sha256: string): Promise<void> {
    await this.store.discard(sha256);
    this.setFile(sha256, null);
    this.state = { ...this.state, full: false };
  }

  /** Deletes every file, and programs too: what is wanted is downloaded again. */
  async clear(): Promise<void> {
    await this.store.save({ program: null, coming: [] });
    this.state = { ...this.state, program: null, next: null, coming: [] };
    this.saved = '';
    this.tellComing();
    this.events.program(null);
    for (const sha256 of [...this.state.files.keys()]) await this.discard(sha256);
  }

  /** Storage was too small for the last piece. */
  isFull(): void {
    this.state = { ...this.state, full: true };
  }

  setFile(sha256: string, file: HeldFile | null): void {
    const files = new Map(this.state.files);
    if (file && file.bytes + Number(file.whole) > 0) files.set(sha256, file);
    else files.delete(sha256);
    this.state = { ...this.state, files };
  }

  /** What stood in for a planned program goes as soon as that is here. Throws where that can't be written down. */
  async dropStandIns(): Promise<void> {
    const coming = withoutStandIns(this.state);
    if (coming.length === this.state.coming.length) return;
    this.state = { ...this.state, coming };
    await this.keepComing();
  }

  /** Tells the coming programs once all their files are here, if that is news. */
  tellComing(): void {
    const [first] = this.state.coming;
    const ready = first && isReady(first, this.state) ? first : null;
    const told = ready ? `${ready.at} ${ready.program.hash}` : '';
    if (told === this.told) return;
    this.told = told;
    this.events.coming?.(ready && { at: ready.at, program: ready.program.document });
  }

  /** Works out from time to time, and after each jump of the corrected time, which files are due when. */
  refreshNeeds(): void {
    const now = this.now();
    if (now >= this.needsAt && now - this.needsAt < NEEDS_HOLD_MS) return;
    this.needsAt = now;
    const { program, next, coming } = this.state;
    this.state = {
      ...this.state,
      program: program && { ...program, needs: needsOf(program.document, now) },
      next: next && this.needing(next, now),
      coming: coming.map(({ at, program: one }) => ({ at, program: this.needing(one, Math.max(at, now)) })),
    };
  }

  private play(program: Program, edition: number | null): void {
    this.state = { ...this.state, program: { ...program, edition }, next: null };
    this.needsAt = this.now();
    this.events.program(program.document);
  }

  private async keepComing(): Promise<void> {
    await this.store.save({
      coming: this.state.coming.map(({ at, program: { hash, text = '', source } }) => ({ at, hash, text, source })),
    });
  }

  private read(hash: string, text: string, from = this.now()): Program {
    const document = JSON.parse(text) as ProgramDocument;
    return { hash, document, needs: needsOf(document, from) };
  }

  private needing(program: Program, from: Instant): Program {
    return { ...program, needs: needsOf(program.document, from) };
  }
}

const timesOf = (coming: readonly Coming[]) => coming.map(({ at, program }) => [at, program.hash, program.source]);
