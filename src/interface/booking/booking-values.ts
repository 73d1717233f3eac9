import type { UseFormReturn } from 'react-hook-form';
import * as z from 'zod';
import {
  bookingSchema,
  nameSchema,
  durationWords,
  readWeave,
  selectorSchema,
  weaveWords,
  type Booking,
  type Weave,
} from '@/core/plan';
import {
  dateSchema,
  describeWhen,
  edgeOf,
  edgeWords,
  parseRule,
  readWhen,
  setsOf,
  weeklyDays,
  weeklyRule,
  whenOfSets,
  whenSchema,
  type PhraseContext,
  type SetOfHours,
  type When,
} from '@/core/when';
import { durationTextSchema, secondsTextSchema } from '@/interface/forms/seconds';
import { contentOf, contentValue } from '@/interface/kit/content/content';

/** As a form offers them; 5 wins over 1. */
export const PRIORITIES = ['1', '2', '3', '4', '5'];

/** A set of hours as fields. */
export interface HoursValues {
  from: string;
  to: string;
  /** 0 Monday to 6 Sunday. */
  days: number[];
  /** A repeat that is more than weekdays; empty for none. */
  rule: string;
  /** `days`: how many days later it ends; empty for that day, or the night after it. */
  windows: { start: string; end: string; days: string }[];
  clock: string;
  /** Dates added and taken away, separated by commas. */
  also: string;
  except: string;
  /** Calendar ids. */
  only: string[];
  not: string[];
}

/** What the booking form holds; `bookingFormSchema` reads it into a booking by the core's own schemas. */
export interface BookingValues {
  /** When: one set of hours or several. */
  sets: HoursValues[];
  name: string;
  content: string;
  seconds: string;
  where: string;
  /** When, in words: a way to fill the fields below it. */
  said: string;
  priority: string;
  takeover: boolean;
  wake: boolean;
  onHold: boolean;
  /** For a takeover on hold: a note for the person who fires it, and how long it is then in force; empty: until the all-clear. */
  words: string;
  lasts: string;
  /** How it is woven in, in words; empty if it isn't. */
  weave: string;
  /** The id of the cue that it waits for; empty: it goes by the clock. */
  cue: string;
  /** How long each firing lasts, in words; empty: one round. */
  forTime: string;
  /** Whether its layout is drawn over whatever plays, and over takeovers too. */
  overlay: boolean;
  overTakeovers: boolean;
}

const wordsSchema = bookingSchema.shape.prepared.unwrap().shape.words;

/** How long a takeover is in force; undefined for until the all-clear. */
const lastsTextSchema = durationTextSchema(
  bookingSchema.shape.prepared.unwrap().shape.lasts.unwrap(),
  'Write a duration under a day, e.g. 30 min or 2 hours. Leave empty for “until the all-clear”.',
);
/** How long a firing lasts; undefined for once through. */
export const forTextSchema = durationTextSchema(bookingSchema.shape.forMs.unwrap());

const START = 'Write when it starts, e.g. 05:30, 5:30 pm, noon, opening, an hour before closing, or sunset.';
const END = 'Write when it ends, e.g. 10:00, 10 am, midnight, closing, or half an hour before sunset.';

const optionalDate = z.union([z.literal(''), dateSchema]);
const dateList = z.string().superRefine((text, context) => {
  const wrong = datesOfText(text).find((one) => !dateSchema.safeParse(one).success);
  if (wrong !== undefined)
    context.addIssue({
      code: 'custom',
      message: `“${wrong}” isn’t a date. Write dates like 2026-12-24, with commas between.`,
    });
});

const datesOfText = (text: string) => text.split(/[\s,]+/).filter((part) => part !== '');

const weaveTextSchema = z.string().transform((text, context): Weave | undefined => {
  const read = readWeave(text);
  if (read.ok) return read.value;
  context.addIssue({ code: 'custom', message: read.message });
  return z.NEVER;
});

const windowSchema = z
  .object({ start: z.string().trim(), end: z.string().trim(), days: z.string() })
  .superRefine(({ start, end }, check) => {
    if (edgeOf(start, false) === null) check.addIssue({ code: 'custom', path: ['start'], message: START });
    if (edgeOf(end, true) === null) check.addIssue({ code: 'custom', path: ['end'], message: END });
  });

const hoursSchema = z
  .object({
    from: optionalDate,
    to: optionalDate,
    days: z.array(z.number()),
    rule: z.string().trim(),
    windows: z.array(windowSchema),
    clock: z.string(),
    also: dateList,
    except: dateList,
    only: z.array(z.string()),
    not: z.array(z.string()),
  })
  .superRefine(({ from, to, rule }, check) => {
    const issue = (path: string, message: string) => check.addIssue({ code: 'custom', path: [path], message });
    if (from && to && to < from) issue('to', 'The last day comes before the first.');
    const read = rule === '' ? null : parseRule(rule);
    if (read?.ok === false) issue('rule', read.message);
    if (rule !== '' && from === '') issue('from', 'Choose the first day of the repeat.');
  });

/** `context` is what the sentence is read against. */
export function bookingFormSchema(context: PhraseContext) {
  return z
    .object({
      name: nameSchema,
      content: z.string().min(1, 'Choose what is shown.'),
      seconds: secondsTextSchema,
      where: selectorSchema,
      said: z.string(),
      sets: z.array(hoursSchema).min(1),
      priority: z.string().transform(Number).pipe(bookingSchema.shape.priority.unwrap()),
      takeover: z.boolean(),
      wake: z.boolean(),
      onHold: z.boolean(),
      words: z
        .string()
        .trim()
        .pipe(z.union([z.literal(''), wordsSchema.unwrap()])),
      lasts: lastsTextSchema,
      weave: weaveTextSchema,
      cue: z.string(),
      forTime: forTextSchema,
      overlay: z.boolean(),
      overTakeovers: z.boolean(),
    })
    .superRefine(({ said, takeover, weave, cue, overlay }, check) => {
      const issue = (path: string, message: string) => check.addIssue({ code: 'custom', path: [path], message });
      if (takeover && weave)
        issue('weave', 'A takeover shows alone, so it can’t share the loop. Turn one of the two off.');
      if (cue !== '' && weave)
        issue('weave', 'A booking that shares the loop can’t wait for a cue. Turn one of the two off.');
      if (overlay && takeover)
        issue('overlay', 'A takeover shows alone, so it can’t be drawn over what plays. Turn one of the two off.');
      if (overlay && weave) issue('weave', 'What shares the loop can’t be drawn over it. Turn one of the two off.');
      const phrase = readWhen(said, context);
      if (!phrase.ok) issue('said', phrase.message);
    });
}

export type CheckedBooking = z.output<ReturnType<typeof bookingFormSchema>>;

/** The form, as its parts take it. */
export type BookingFormOf = UseFormReturn<z.input<ReturnType<typeof bookingFormSchema>>, unknown, CheckedBooking>;

/** A `When` as fields, a group of them for each set of hours. */
export const whenValues = (when: When): HoursValues[] => setsOf(when).map(hoursValues);

function hoursValues(set: SetOfHours): HoursValues {
  const rule = set.repeat === undefined ? null : parseRule(set.repeat);
  const weekly = rule?.ok && rule.value.interval === 1 ? weeklyDays(rule.value) : null;
  return {
    from: set.from ?? '',
    to: set.to ?? '',
    days: weekly ?? [],
    rule: weekly ? '' : (set.repeat ?? ''),
    windows: (set.windows ?? []).map(([start, end, days]) => ({
      start: edgeWords(start),
      end: edgeWords(end),
      days: days === undefined ? '' : String(days),
    })),
    clock: set.clock ?? 'site',
    also: (set.also ?? []).join(', '),
    except: (set.except ?? []).join(', '),
    only: set.only ?? [],
    not: set.not ?? [],
  };
}

/** The form's inputs of which a `When` is made. */
export const WHEN_INPUTS = ['said', 'sets'] as const satisfies readonly (keyof BookingValues)[];

/** The field of the form that a problem of a `When` is shown at: `/when/any/1/from` is `sets.1.from`. */
export function whenField(path: readonly string[]): string {
  const [, any, index] = path;
  const [set, field] = any === 'any' ? [index ?? '0', path[3]] : ['0', any];
  return field === undefined ? 'said' : `sets.${set}.${field}`;
}

/** The fields of a set of hours that the form has inputs for. Other fields are kept as they are. */
const KNOWN = ['clock', 'from', 'to', 'repeat', 'also', 'except', 'only', 'not', 'windows'];

/**
 * The `When` of checked fields; what `before` says besides is kept. `today` (YYYY-MM-DD) begins weekdays that have no first day.
 */
export function whenOf(values: readonly HoursValues[], today: string, before: When = {}): When {
  const sets = setsOf(before);
  return whenSchema.parse(whenOfSets(values.map((one, i) => hoursOf(one, today, sets[i] ?? {}))));
}

function hoursOf(values: HoursValues, today: string, before: SetOfHours): SetOfHours {
  const { from, to, days, rule, windows, clock, only, not } = values;
  const repeat = rule !== '' ? rule : days.length > 0 && days.length < 7 ? weeklyRule(days) : undefined;
  const first = from !== '' ? from : repeat === undefined ? undefined : to !== '' && to < today ? to : today;
  const list = (key: string, entries: readonly unknown[]) => (entries.length > 0 ? { [key]: entries } : {});
  return {
    ...Object.fromEntries(Object.entries(before).filter(([field]) => !KNOWN.includes(field))),
    ...(clock === 'site' ? {} : { clock }),
    ...(first === undefined ? {} : { from: first }),
    ...(to === '' ? {} : { to }),
    ...(repeat === undefined ? {} : { repeat }),
    ...list('also', datesOfText(values.also)),
    ...list('except', datesOfText(values.except)),
    ...list('only', only),
    ...list('not', not),
    ...list(
      'windows',
      windows.map(({ start, end, days: later }) => [
        edgeOf(start, false) ?? start.trim(),
        edgeOf(end, true) ?? end.trim(),
        ...(later === '' ? [] : [Number(later)]),
      ]),
    ),
  };
}

/** The fields in words, or null while one of them is not valid. */
export function fieldsInWords(values: readonly HoursValues[], today: string): string | null {
  try {
    return describeWhen(whenOf(values, today));
  } catch {
    return null;
  }
}

/** A booking's values for the form; those of a new one where there is none, begun from what is known of it. */
export function bookingValues(booking: Booking | null, begun: Partial<Booking> = {}): BookingValues {
  const source = booking ?? begun;
  const when: When = source.when ?? {};
  return {
    name: source.name ?? '',
    content: contentValue(source.content),
    seconds: source.content?.durationMs === undefined ? '' : String(source.content.durationMs / 1000),
    where: source.where ?? '',
    said: describeWhen(when),
    sets: whenValues(when),
    priority: String(source.priority ?? 3),
    takeover: source.takeover ?? false,
    wake: source.wake ?? false,
    onHold: source.onHold ?? false,
    words: source.prepared?.words ?? '',
    lasts: source.prepared?.lasts === undefined ? '' : durationWords(source.prepared.lasts),
    weave: source.weave ? weaveWords(source.weave) : '',
    cue: source.cue ?? '',
    forTime: source.forMs === undefined ? '' : durationWords(source.forMs),
    overlay: source.overlay !== undefined,
    overTakeovers: source.overlay?.overTakeovers ?? false,
  };
}

/** The fields of a takeover on hold. Those of a booking that was fired, or is no longer a takeover, are kept. */
function preparedOf(
  { takeover, onHold, words, lasts }: CheckedBooking,
  before: Booking | null,
): Pick<Booking, 'prepared'> {
  if (!takeover || !onHold) return before?.prepared ? { prepared: before.prepared } : {};
  const prepared = { ...(words === '' ? {} : { words }), ...(lasts === undefined ? {} : { lasts }) };
  return Object.keys(prepared).length > 0 ? { prepared } : {};
}

/** Only a layout that goes by the clock is drawn over what plays. */
export const isOverlay = ({ overlay, content, cue }: Pick<BookingValues, 'overlay' | 'content' | 'cue'>): boolean =>
  overlay && cue === '' && content.startsWith('layout:');

/** The booking's document from checked values; `now` dates a new one. */
export function bookingDocument(values: CheckedBooking, before: Booking | null, now: Date): Omit<Booking, 'id'> {
  return {
    name: values.name,
    content: contentOf(values.content, values.seconds) as Booking['content'],
    where: values.where.trim(),
    priority: values.priority,
    ...(values.takeover ? { takeover: true } : {}),
    ...(values.takeover && values.wake ? { wake: true } : {}),
    ...(values.onHold ? { onHold: true } : {}),
    ...(values.weave ? { weave: values.weave } : {}),
    ...(values.cue === '' ? {} : { cue: values.cue }),
    ...(values.cue === '' || values.forTime === undefined ? {} : { forMs: values.forTime }),
    ...(isOverlay(values) ? { overlay: values.overTakeovers ? { overTakeovers: true } : {} } : {}),
    ...preparedOf(values, before),
    ...(before?.drill ? { drill: true } : {}),
    created: before?.created ?? now.toISOString(),
    when: whenOf(values.sets, now.toISOString().slice(0, 10), before?.when),
  };
}
