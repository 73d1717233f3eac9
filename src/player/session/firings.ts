import equal from 'fast-deep-equal';
import { SECOND, type Instant } from '@/core/playing';
import type { Press, Target } from '@/protocol/schemas';
import type { PlayerStore } from './store';

type Listed = NonNullable<Target['firings']>[number];

/** A firing as it is kept over restarts: from the server, or pressed here and not yet known there. */
export interface KeptFiring extends Pick<Listed, 'id' | 'cue' | 'at' | 'end'> {
  /** What the server is to be told; absent for what it told. */
  readonly pressed?: Press['touched'] | 'key' | undefined;
  /** Pressed here, and for other screens alone. */
  readonly elsewhere?: true | undefined;
  /** When the server took it, by its clock. */
  readonly sentAt?: Instant | undefined;
}

/** The same press within this time, with no other between, is one: a finger that bounces. */
const SAME_PRESS_MS = 300;
/** A panel that has gone mad is passed over: so many presses in so long. */
const MOST_PRESSES = 10;
const PRESSES_WITHIN_MS = 10 * SECOND;
/** What the server took and does not list after this time, it passed over. */
const LISTED_WITHIN_MS = 10 * SECOND;
/** What can't be told for so long is of no use to anybody. */
const KEPT_MS = 24 * 3_600_000;

/** What was fired on this screen, by the server's word and by presses in front of it, which count at once and without a network. */
export class Firings {
  private list: readonly KeptFiring[] = [];
  private presses: { readonly key: string; readonly at: Instant }[] = [];
  private sending = false;

  constructor(
    private readonly store: Pick<PlayerStore, 'save'>,
    private readonly now: () => Instant,
    private readonly newId: () => string,
    private readonly send: (presses: readonly Press[]) => Promise<void>,
    /** What counts has changed. */
    private readonly changed: (firings: readonly KeptFiring[]) => void,
    /** Something is pressed far too often. */
    private readonly tooMany: (cue: string) => void,
  ) {}

  resume(kept: readonly KeptFiring[]): void {
    this.list = kept;
    if (kept.length > 0) this.changed(kept);
  }

  /** The screen was given to another player. */
  forget(): void {
    this.set([]);
  }

  /** What the server lists counts, unless it came too late; what was pressed here counts until the server lists it. */
  follow(listed: readonly Listed[] | undefined): void {
    if (!listed) return;
    const now = this.now();
    const heard = new Set(this.list.map(({ id }) => id));
    const told = listed.filter(({ id, end, late }) => end || heard.has(id) || now <= late);
    const own = this.list.filter(
      (one) =>
        one.pressed !== undefined &&
        !told.some(({ cue, at }) => cue === one.cue && at === one.at) &&
        now - one.at < KEPT_MS &&
        (one.sentAt === undefined || now - one.sentAt < LISTED_WITHIN_MS),
    );
    this.set([...told.map(({ id, cue, at, end }) => ({ id, cue, at, ...(end ? { end } : {}) })), ...own]);
    void this.tell();
  }

  /**
   * Something was pressed at the screen. `here`: it counts on this screen too, at once. Returns whether it was taken: not if it is the same
   * press as just before, or one of far too many.
   */
  press(cue: string, pressed: NonNullable<KeptFiring['pressed']>, { here = true, end = false } = {}): boolean {
    const at = Math.round(this.now());
    const key = JSON.stringify([cue, pressed, end]);
    this.presses = this.presses.filter((one) => Math.abs(at - one.at) < PRESSES_WITHIN_MS);
    const last = this.presses.at(-1);
    if (last?.key === key && Math.abs(at - last.at) < SAME_PRESS_MS) return false;
    if (this.presses.length >= MOST_PRESSES) {
      this.tooMany(cue);
      return false;
    }
    this.presses.push({ key, at });
    const one: KeptFiring = {
      ...{ id: this.newId(), cue, at, pressed },
      ...(end ? { end: true as const } : {}),
      ...(here ? {} : { elsewhere: true as const }),
    };
    this.set([...this.list, one]);
    void this.tell();
    return true;
  }

  /** Those that count on this screen. */
  private get counting(): readonly KeptFiring[] {
    return this.list.filter(({ elsewhere }) => !elsewhere);
  }

  /** Tells the server what it does not know. What fails is tried again with the next word from it. */
  private async tell(): Promise<void> {
    const open = this.list.filter(({ pressed, sentAt }) => pressed !== undefined && sentAt === undefined);
    if (this.sending || open.length === 0) return;
    this.sending = true;
    try {
      await this.send(
        open.map(({ id, cue, at, end, pressed }) => ({
          ...{ id, cue, at },
          ...(end ? { end } : {}),
          ...(pressed === 'key' ? {} : { touched: pressed }),
        })),
      );
      const sent = new Set(open.map(({ id }) => id));
      this.set(this.list.map((one) => (sent.has(one.id) ? { ...one, sentAt: this.now() } : one)));
    } catch {
      // The line is away: with the next word from the server it is tried again.
    } finally {
      this.sending = false;
    }
  }

  private set(list: readonly KeptFiring[]): void {
    if (equal(list, this.list)) return;
    const before = this.counting;
    this.list = list;
    if (!equal(facts(before), facts(this.counting))) this.changed(this.counting);
    // What can't be kept counts all the same.
    void this.store.save({ firings: list }).catch(() => undefined);
  }
}

const facts = (list: readonly KeptFiring[]) =>
  list.map(({ cue, at, end }) => [cue, at, end ?? false]).sort((a, b) => Number(a[1]) - Number(b[1]));
