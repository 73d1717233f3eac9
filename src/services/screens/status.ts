import type { Verdict } from '@/core/glimpses';
import type { State } from '@/core/health';
import { controlsOf, type Control } from '@/core/profiles';
import type { Part } from '@/core/walls';
import type { Report } from '@/protocol/schemas';

/** How a screen is, by what its player told last: pure. */

export type ScreenState = State;

/** How a screen is, as far as its player tells. It stays the same while nothing is to be said of it. */
export interface ScreenStatus {
  readonly id: string;
  readonly state: ScreenState;
  /** When a dark screen was last online; null for never, and while it is online. */
  readonly lastSeen: string | null;
  /** What a dark screen last reported; null while it is online, or if it never reported. */
  readonly wasLast: Exclude<ScreenState, 'dark' | 'unpaired'> | null;
  /** Plain sentences for what is wrong. */
  readonly troubles: readonly string[];
  readonly download: Report['download'];
  /** Of a wall: its displays, by their numbers. */
  readonly parts?: readonly PartStatus[];
  /** What its player can do besides playing, as it told last, else by its profile; null if neither says. */
  readonly can: readonly string[] | null;
}

/** How one display of a wall is. */
export interface PartStatus extends Part {
  readonly state: ScreenState;
  readonly lastSeen: string | null;
}

export const HEARD_WITHIN_MS = 45_000;
const CLOCK_TOLERANCE_MS = 30_000;
const DOUBLED_FOR_MS = 10 * 60_000;
/** After so long, what was wrong in a picture may be right. A new picture tells. */
const GLIMPSE_COUNTS_MS = 24 * 3_600_000;

const WRONG: { readonly [V in Verdict]?: string } = {
  black: 'The last picture of this screen is black. Check that the display is on, and its cable.',
  differs:
    'The last picture of this screen doesn’t show what is planned. Compare the two, then check its input and its player.',
};

/** What is known of a screen's player. */
export interface Heard {
  readonly id: string;
  readonly player: string | null;
  readonly lastSeen: Date | null;
  readonly report: Report | null;
  /** When two players were seen last that used its token in turn; null for never. */
  readonly doubledAt?: Date | null;
  /** What its profile says that can't be done to it; null or absent for not known. */
  readonly lacks?: readonly Control[] | null;
  /** What the newest picture of the screen says, and when it was taken; null before the first. */
  readonly glimpse?: { readonly verdict: Verdict; readonly at: number } | null;
}

/** `target` is the program that the screen is to play; null where the newest edition has none for it. */
export function statusOf(heard: Heard, target: string | null, now: number): ScreenStatus {
  const { id, player, lastSeen, report } = heard;
  const state = stateOf({ paired: player !== null, lastSeen, report, target, now });
  return {
    id,
    state,
    lastSeen: state === 'dark' ? (lastSeen?.toISOString() ?? null) : null,
    wasLast: state === 'dark' ? wasLast(heard, target) : null,
    troubles: state === 'unpaired' ? [] : troublesOf(heard, target, now),
    download: state === 'behind' ? (report?.download ?? null) : null,
    can: controlsOf({ lacks: heard.lacks }, report ? { can: report.can ?? [] } : undefined),
  };
}

function wasLast({ lastSeen, report }: Heard, target: string | null): ScreenStatus['wasLast'] {
  if (!lastSeen || !report) return null;
  const state = stateOf({ paired: true, lastSeen, report, target, now: lastSeen.getTime() });
  return state === 'dark' || state === 'unpaired' ? null : state;
}

/** A screen's state (design of the player, "States that an operator sees"). */
export function stateOf(known: {
  paired: boolean;
  lastSeen: Date | null;
  report: Report | null;
  target: string | null;
  now: number;
}): ScreenState {
  const { paired, lastSeen, report, target, now } = known;
  if (!paired) return 'unpaired';
  if (!lastSeen || now - lastSeen.getTime() > HEARD_WITHIN_MS) return 'dark';
  if (!report || target === null || report.program !== target) return 'behind';
  // It plays the right program, but not all that is to be seen by now.
  if (isOverdue(report, now)) return 'behind';
  return report.state === 'resting' ? 'resting' : 'lit';
}

const isOverdue = ({ missing }: Report, now: number) => missing?.neededBy != null && missing.neededBy <= now;

function troublesOf({ report, doubledAt, glimpse }: Heard, target: string | null, now: number): string[] {
  const troubles: string[] = [];
  if (doubledAt && now - doubledAt.getTime() < DOUBLED_FOR_MS)
    troubles.push('Two players show this screen with one token. Unpair it, then pair one of them.');
  if (target === null) troubles.push('Not in the newest edition yet. Publish your changes.');
  if (!report) return troubles;
  const { clockOffsetMs, download, errors, hardware, storage } = report;
  if (Math.abs(clockOffsetMs) > CLOCK_TOLERANCE_MS)
    troubles.push(
      `Clock ${spoken(Math.abs(clockOffsetMs))} ${clockOffsetMs > 0 ? 'slow' : 'fast'}; it plays by the server’s.`,
    );
  if (storage && download && storage.usedBytes + download.totalBytes - download.doneBytes > storage.limitBytes) {
    const short = storage.usedBytes + download.totalBytes - download.doneBytes - storage.limitBytes;
    troubles.push(`Storage full: ${Math.ceil(short / 1e6)} MB short.`);
  }
  if (hardware?.blank) troubles.push('Blanked by a person. Choose “Show again” under Commands to end it.');
  const wrong = glimpse && now - glimpse.at < GLIMPSE_COUNTS_MS ? WRONG[glimpse.verdict] : undefined;
  if (wrong !== undefined && !hardware?.blank) troubles.push(wrong);
  if (report.missing) troubles.push(missingWords(report.missing, isOverdue(report, now)));
  const last = errors.at(-1);
  if (last && now - last.at < 10 * 60_000) troubles.push(last.message);
  return troubles;
}

function missingWords({ files, bytes }: NonNullable<Report['missing']>, overdue: boolean): string {
  const what = `${files === 1 ? '1 file' : `${files} files`} (${(bytes / 1e6).toFixed(1)} MB)`;
  return overdue ? `${what} should show by now and can’t: still to come.` : `${what} still to come, not needed yet.`;
}

function spoken(ms: number): string {
  return ms < 120_000 ? `${Math.round(ms / 1000)} s` : `${Math.round(ms / 60_000)} min`;
}
