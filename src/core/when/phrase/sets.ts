import { CLAUSES } from './clauses';
import { newDraft } from './draft';
import { EXCEPT } from './exceptions';
import { Reader, type PhraseContext } from './reader';

/**
 * Parts a phrase that says several sets of hours: "weekdays 7–10 and weekends 10–16, not on storm-days" is "weekdays 7–10, not on storm-days"
 * and "weekends 10–16, not on storm-days". It looks at what kind of thing each piece says, and not at what it means: each part is
 * then read alone.
 */

/** What stands between the pieces of a phrase, and says nothing. */
export const BETWEEN = /(?:[\s,;:.()&/]|\b(?:and|runs?|running|valid)\b)+/;

type Kind = 'days' | 'dates' | 'calendar' | 'hours' | 'whole' | 'except' | 'other';

interface Piece {
  readonly text: string;
  readonly start: number;
  readonly end: number;
  /** `whole` says days and their hours at once: "Friday 18:00 to Monday 06:00"; `except` leaves days out. */
  readonly kind: Kind;
  /** Whether a semicolon stands before it. */
  readonly parted: boolean;
}

/** A phrase as one text for each of its sets of hours: the phrase itself where it says one. */
export function partsOf(text: string, context: PhraseContext): readonly string[] {
  const pieces = piecesOf(text, context);
  if (!pieces) return [text];
  const written = atSemicolons(pieces);
  if (written.length > 1) return written.flatMap((group) => alternatives(group, text));
  const groups = groupsOf(pieces);
  if (groups.length === 1) return alternatives(pieces, text);
  const [first = [], ...more] = groups;
  const last = groups.at(-1) ?? [];
  const begun = lead(first);
  // Where another has an end of its own, what is said last is of the last one alone.
  const ended = groups.slice(0, -1).some((group) => tail(group).length > 0) ? [] : tail(last);
  const shared = (own: readonly Piece[]) => [...(own === first ? [] : begun), ...own, ...(own === last ? [] : ended)];
  return [first, ...more].flatMap((group) => alternatives(shared(group), text));
}

/** Every piece of a phrase; null if any of it isn't understood. */
function piecesOf(text: string, context: PhraseContext): Piece[] | null {
  const reader = new Reader(text, context);
  const pieces: Piece[] = [];
  for (;;) {
    const before = reader.at;
    reader.skip(BETWEEN);
    if (reader.done) return pieces;
    const start = reader.at;
    const parted = text.slice(before, start).includes(';');
    const draft = newDraft();
    if (!CLAUSES.some((read) => read(reader, draft)) || reader.at === start) return null;
    const piece = { text: text.slice(start, reader.at), start, end: reader.at, parted };
    const kind = reader.error === null ? kindOf(draft, piece.text) : 'other';
    // "Sat in Dec": which Saturdays.
    const narrows = kind === 'dates' && pieces.at(-1)?.kind === 'days' && /^in\s/i.test(piece.text);
    pieces.push({ ...piece, kind: narrows ? 'other' : kind });
    reader.error = null;
  }
}

function kindOf(draft: ReturnType<typeof newDraft>, text: string): Kind {
  const hours =
    draft.windows.length > 0 ||
    [draft.begins, draft.ends, draft.lasts, draft.partHours].some((one) => one !== undefined);
  const days =
    draft.days.size > 0 ||
    draft.rule !== undefined ||
    draft.weekly ||
    draft.parity !== undefined ||
    draft.everyWeeks > 1;
  const dates = draft.from !== undefined || draft.to !== undefined;
  if (hours) return days || dates ? 'whole' : 'hours';
  if (draft.notDays.size > 0 || draft.except.length > 0 || draft.not.length > 0) return 'except';
  if (days || draft.daily) return 'days';
  if (dates) return 'dates';
  // "on storm-days" narrows what is said, "public holidays" are days of their own.
  const narrows = /^(?:only|just|but|on|during|in|for|at|when|while)\b/i.test(text);
  return draft.only.length > 0 && !narrows ? 'calendar' : 'other';
}

const says = (group: readonly Piece[], ...kinds: Kind[]) => group.some(({ kind }) => kinds.includes(kind));

/** The groups between semicolons, if each has days or hours of its own; otherwise all pieces in one. */
function atSemicolons(pieces: readonly Piece[]): Piece[][] {
  const groups: Piece[][] = [];
  for (const piece of pieces) {
    const group = groups.at(-1);
    if (group && !piece.parted) group.push(piece);
    else groups.push([piece]);
  }
  return groups.every((group) => says(group, 'days', 'calendar', 'hours', 'whole')) ? groups : [[...pieces]];
}

/** A new set of hours begins with other days once hours were said, or with other hours where these stand before their days. */
function groupsOf(pieces: readonly Piece[]): Piece[][] {
  const groups: Piece[][] = [];
  pieces.forEach((piece, i) => {
    const group = groups.at(-1);
    if (group && !begins(piece, group, pieces.slice(i + 1))) group.push(piece);
    else if (group && piece.kind === 'except') {
      // "daily 6–22 except Sundays 8–20": the first is not on Sundays, the second is.
      group.push(piece);
      groups.push([
        { ...piece, text: piece.text.replace(new RegExp(`^(?:${EXCEPT}|but\\s+)`, 'i'), ''), kind: 'days' },
      ]);
    } else groups.push([piece]);
  });
  return groups;
}

function begins({ kind }: Piece, group: readonly Piece[], ahead: readonly Piece[]): boolean {
  const hasHours = says(group, 'hours', 'whole');
  const hasDays = says(group, 'days', 'calendar', 'dates', 'whole');
  if (!hasHours || !hasDays) return false;
  const next = ahead.find((one) => one.kind !== 'days' && one.kind !== 'calendar' && one.kind !== 'other')?.kind;
  switch (kind) {
    case 'whole':
      return true;
    case 'days':
    case 'calendar':
      return next === 'hours' && !startsWithHours(group);
    case 'except':
      return ahead[0]?.kind === 'hours' && !startsWithHours(group);
    case 'dates':
      return ahead.find((one) => one.kind !== 'dates')?.kind === 'hours' && !startsWithHours(group);
    case 'hours':
      return startsWithHours(group) && (ahead[0]?.kind === 'days' || ahead[0]?.kind === 'calendar');
    default:
      return false;
  }
}

const startsWithHours = (group: readonly Piece[]) => group.find(({ kind }) => kind !== 'other')?.kind === 'hours';

const isRest = ({ kind }: Piece) => kind === 'dates' || kind === 'except' || kind === 'other';

/** What is said before the first days of the week is meant of all: "in December weekdays 7–10, weekends 10–16". */
function lead(group: readonly Piece[]): readonly Piece[] {
  const at = group.findIndex((piece) => !isRest(piece));
  return says(group, 'days', 'calendar', 'whole') ? group.slice(0, Math.max(0, at)) : [];
}

/** What is said after the last hours is meant of all too: "…, not on storm-days". */
function tail(group: readonly Piece[]): readonly Piece[] {
  const at = group.findLastIndex((piece) => !isRest(piece));
  return says(group, 'days', 'calendar', 'whole')
    ? group.slice(at + 1)
    : group.slice(at + 1).filter((one) => one.kind !== 'dates');
}

/** "Sundays and public holidays 10–16" are two sets of hours: those of the week and those of the calendar, with the same hours. */
function alternatives(group: readonly Piece[], text: string): string[] {
  const isEither = group.some(({ kind, start }, i) => {
    const before = group[i - 1];
    const beside = before && (before.kind === 'days' || before.kind === 'calendar') && before.kind !== kind;
    return (
      beside && (kind === 'calendar' || kind === 'days') && /,|&|\band\b|\bor\b/i.test(text.slice(before.end, start))
    );
  });
  const without = (kind: Kind) =>
    joined(
      group.filter((one) => one.kind !== kind),
      text,
    );
  return isEither ? [without('calendar'), without('days')] : [joined(group, text)];
}

/** Pieces that stood beside each other stay as they were written. */
function joined(pieces: readonly Piece[], text: string): string {
  return pieces.reduce((written, piece, i) => {
    const before = pieces[i - 1];
    if (!before) return piece.text;
    const between = text.slice(before.end, piece.start);
    const beside = before.end <= piece.start && /^[\s,]*$/.test(between);
    return `${written}${beside ? between || ' ' : ', '}${piece.text}`;
  }, '');
}
