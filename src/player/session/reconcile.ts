import { SECOND, type Asset, type Instant, type ProgramDocument } from '@/core/playing';
import type { Target } from '@/protocol/schemas';
import { FIRST_DAY, type Need } from './needs';

/**
 * What is wanted against what is held, and the next most urgent step from the one to the other: a pure function, asked again
 * after each step and at every new wish. A step that is no longer the next is broken off.
 */

/** A program that was read, with what it needs and when. */
export interface Program {
  readonly hash: string;
  readonly document: ProgramDocument;
  readonly needs: readonly Need[];
  /** As it came, until it is kept. */
  readonly text?: string | undefined;
  /** The edition that it is of: all programs of one edition show this screen the same, from other files. Undefined where that isn't known. */
  readonly source?: string | undefined;
}

/** How much of a file is here. */
export interface HeldFile {
  readonly bytes: number;
  /** Complete and verified. */
  readonly whole: boolean;
}

/** A program that is to begin at an instant. Its needs are those from then on. */
export interface Coming {
  readonly at: Instant;
  readonly program: Program;
}

export interface HeldState {
  /** What plays; null before the first. */
  readonly program: (Program & { readonly edition: number | null }) | null;
  /** What is being made ready, where that is another. */
  readonly next: Program | null;
  /**
   * What is planned and here already, the earliest first. Where a planned edition comes with other files, what is here whole is used
   * for it, and is listed before it, until they are here too.
   */
  readonly coming: readonly Coming[];
  readonly files: ReadonlyMap<string, HeldFile>;
  /** Whether storage was too small for the last piece. */
  readonly full: boolean;
}

export type Step =
  /** Fetch the program's text. */
  | { readonly kind: 'program'; readonly hash: string }
  /** Fetch the text of one that is planned, and keep it. */
  | { readonly kind: 'ahead'; readonly hash: string; readonly at: Instant; readonly source?: string | undefined }
  /** Fetch a file, from where it broke off. */
  | { readonly kind: 'file'; readonly asset: Asset }
  /** All that the next program needs in its first day is here: it plays from now on. */
  | { readonly kind: 'activate'; readonly program: Program; readonly edition: number | null }
  /** The same program by a newer edition. */
  | { readonly kind: 'edition'; readonly edition: number | null }
  /** No program that is kept shows this file. */
  | { readonly kind: 'clear'; readonly sha256: string };

export function stepKey(step: Step): string {
  switch (step.kind) {
    case 'program':
    case 'edition':
      return `${step.kind} ${step.kind === 'program' ? step.hash : (step.edition ?? '')}`;
    case 'ahead':
      return `ahead ${step.hash} ${step.at}`;
    case 'file':
      return `file ${step.asset.sha256}`;
    case 'activate':
      return `activate ${step.program.hash}`;
    case 'clear':
      return `clear ${step.sha256}`;
  }
}

/**
 * The corrected time is measured with each answer, and differs a little each time. So a play that has begun goes on, if by the new time it
 * would begin within this long of when it did.
 */
const SETTLED_MS = 5 * SECOND;

/** A program by its hash, and the edition that it is of. */
interface Wish {
  readonly program: string | null;
  readonly source?: string | undefined;
}

const isOf = (program: Program | null, source: string | undefined): boolean =>
  source !== undefined && program?.source === source;

/**
 * The program that is to play by an instant: what is planned takes over at its time, without word from the server too. Null where nothing
 * is known of it. Where the program itself is not here, another of the same edition that is here begins.
 */
export function wantedAt(target: Target | null, held: HeldState, now: Instant): string | null {
  const planned = target
    ? (target.coming ?? [])
    : held.coming.map(({ at, program }) => ({ at, program: program.hash, source: program.source }));
  const due = planned.filter(
    ({ at, program, source }) =>
      at <= now || ((program === held.program?.hash || isOf(held.program, source)) && at <= now + SETTLED_MS),
  );
  const wish = due.at(-1) ?? target;
  return wish && (standIn(wish, held, now)?.hash ?? wish.program);
}

/** What is here whole of the edition that is wished for, where neither its wished program is, nor anything of it plays yet. */
function standIn(wish: Wish, held: HeldState, now: Instant): Program | null {
  if (wish.program === null || wish.program === held.program?.hash || isOf(held.program, wish.source)) return null;
  const whole = [
    ...(held.next && !missingIn(firstDay(held.next, now), held.files) ? [held.next] : []),
    ...held.coming.filter((one) => isReady(one, held)).map((one) => one.program),
  ];
  if (whole.some(({ hash }) => hash === wish.program)) return null;
  return whole.find((one) => isOf(one, wish.source)) ?? null;
}

/** What is planned, without what stood in for programs that are here by now. */
export function withoutStandIns({ coming, files }: HeldState): readonly Coming[] {
  return coming.filter(
    ({ program }, i) => !coming.some((one, j) => j > i && isOf(one.program, program.source) && isReady(one, { files })),
  );
}

/** The edition that a program of a target is of. */
export const sourceIn = (target: Target | null, hash: string): string | undefined =>
  [...(target?.coming ?? []), ...(target ? [target] : [])].find(({ program }) => program === hash)?.source;

/** When something planned begins next, after an instant; Infinity for never. */
export function nextBegin(target: Target | null, held: HeldState, now: Instant): Instant {
  return Math.min(...(target ? (target.coming ?? []) : held.coming).map(({ at }) => at).filter((at) => at > now));
}

const missingIn = (needs: readonly Need[], files: HeldState['files']) =>
  needs.find(({ asset }) => !files.get(asset.sha256)?.whole);

/** What a program that begins at an instant shows in its first day from then on. */
const firstDay = ({ needs }: Program, from: Instant) => needs.filter(({ by }) => by < from + FIRST_DAY);

/** Whether all of a planned program's first day is here. */
export const isReady = ({ at, program }: Coming, { files }: Pick<HeldState, 'files'>): boolean =>
  !missingIn(firstDay(program, at), files);

/** The next step towards the target, or null where all is reached. */
export function nextStep(target: Target | null, held: HeldState, now: Instant): Step | null {
  const { program, next, files, full } = held;
  const wanted = wantedAt(target, held, now);
  const isOther = wanted !== null && wanted !== program?.hash;
  const planned = held.coming.find((one) => one.program.hash === wanted)?.program ?? null;
  const coming = isOther ? (next?.hash === wanted ? next : planned) : null;
  if (full) {
    const cleared = unused(held, coming);
    if (cleared) return cleared;
  }
  if (isOther) {
    if (!coming) return { kind: 'program', hash: wanted };
    const first = missingIn(firstDay(coming, now), files);
    return first
      ? { kind: 'file', asset: first.asset }
      : { kind: 'activate', program: coming, edition: target?.edition ?? program?.edition ?? null };
  }
  if (!program) return null;
  if (target && wanted === program.hash && target.edition !== program.edition)
    return { kind: 'edition', edition: target.edition };
  const known = new Set([program, ...held.coming.map((one) => one.program)].map(({ hash }) => hash));
  for (const { at, program: hash, source } of target?.coming ?? [])
    if (hash !== null && !known.has(hash)) return { kind: 'ahead', hash, at, source };
  // What is planned takes its turn with what plays: by when each is to be seen.
  const needs = [program, ...held.coming.map((one) => one.program)].flatMap((one) => one.needs);
  const later = missingIn(
    needs.sort((a, b) => (a.by < b.by ? -1 : a.by > b.by ? 1 : 0)),
    files,
  );
  return later ? { kind: 'file', asset: later.asset } : unused(held, null);
}

/** A file that neither what plays nor what comes needs. While nothing plays nothing is thrown away. */
function unused({ program, files, coming: planned }: HeldState, coming: Program | null): Step | null {
  if (!program) return null;
  const programs = [program, ...(coming ? [coming] : []), ...planned.map((one) => one.program)];
  const kept = new Set(programs.flatMap(({ needs }) => needs).map(({ asset }) => asset.sha256));
  for (const sha256 of files.keys()) if (!kept.has(sha256)) return { kind: 'clear', sha256 };
  return null;
}

/** What is missing of the program that plays, told in every report. */
export interface Missing {
  readonly files: number;
  readonly bytes: number;
  /** When the first of them is to be seen; null where that is not within sight. */
  readonly neededBy: Instant | null;
}

/** Null where nothing is missing. */
export function missingOf({ program, files }: HeldState): Missing | null {
  const missing = (program?.needs ?? []).filter(({ asset }) => !files.get(asset.sha256)?.whole);
  const [first] = missing;
  if (!first) return null;
  return {
    files: missing.length,
    bytes: missing.reduce((sum, { asset }) => sum + asset.bytes - (files.get(asset.sha256)?.bytes ?? 0), 0),
    neededBy: Number.isFinite(first.by) ? Math.round(first.by) : null,
  };
}

/** How far the files are that have to be here before the next program starts; null where none is awaited. */
export function downloadOf({ next, files }: HeldState, now: Instant): { doneBytes: number; totalBytes: number } | null {
  const first = next?.needs.filter(({ by }) => by < now + FIRST_DAY) ?? [];
  const totalBytes = first.reduce((sum, { asset }) => sum + asset.bytes, 0);
  if (totalBytes === 0) return null;
  return { totalBytes, doneBytes: first.reduce((sum, { asset }) => sum + (files.get(asset.sha256)?.bytes ?? 0), 0) };
}
