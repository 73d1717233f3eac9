import type { UseFormReturn } from 'react-hook-form';
import { z } from 'zod';
import {
  bookingSchema,
  dateSchema,
  describeWhen,
  edgeOf,
  edgeWords,
  nameSchema,
  parseRule,
  durationWords,
  readDuration,
  readWeave,
  readWhen,
  selectorSchema,
  weeklyDays,
  weaveWords,
  weeklyRule,
  whenSchema,
  type Booking,
  type PhraseContext,
  type Weave,
  type When,
} from '@/core';
import { secondsTextSchema } from '@/interface/forms/seconds';
import { contentOf, contentValue } from '@/interface/kit/content';

/** A `When` as fields. */
export interface WhenValues {
  from: string;
  to: string;
  /** 0 Monday to 6 Sunday. */
  days: number[];
  /** A repeat that is more than weekdays; empty for none. */
  rule: string;
  windows: { start: string; end: string }[];
  clock: string;
  /** Dates added and taken away, separated by commas. */
  also: string;
  except: string;
  /** Calendar ids. */
  only: string[];
  not: string[];
}

/** What the booking form holds; `bookingFormSchema` reads it into a booking by the core's own schemas. */
export interface BookingValues extends WhenValues {
  name: string;
  content: string;
  seconds: string;
  where: string;
  /** When, as one says it: a way to fill the fields below it. */
  said: string;
  priority: string;
  takeover: boolean;
  wake: boolean;
  onHold: boolean;
  /** What a takeover on hold says to who fires it, and how long it is in force then; empty: until the all-clear. */
  words: string;
  lasts: string;
  /** How it is woven in, as one says it; empty where it is not. */
  weave: string;
}

const wordsSchema = bookingSchema.shape.prepared.unwrap().shape.words;
const lastsSchema = bookingSchema.shape.prepared.unwrap().shape.lasts;

/** How long a takeover is in force, as one says it; undefined for until the all-clear. */
const lastsTextSchema = z.string().transform((text, context): number | undefined => {
  if (text.trim() === '') return undefined;
  const read = readDuration(text);
  const checked = read.ok ? lastsSchema.safeParse(read.value) : null;
  if (checked?.success) return checked.data;
  const said = read.ok
    ? checked?.error?.issues[0]?.message
    : 'Write how long as 30 min, or 2 hours, less than a day; empty: until the all-clear.';
  context.addIssue({ code: 'custom', message: said ?? 'This is no length of time.' });
  return z.NEVER;
});

const START = 'A window starts at a time: 05:30, 5.30 pm, noon, opening, an hour before closing.';
const END = 'A window ends at a time: 10:00, 10 am, midnight, closing, half an hour before closing.';

const optionalDate = z.union([z.literal(''), dateSchema]);
const dateList = z.string().superRefine((text, context) => {
  const wrong = datesOfText(text).find((one) => !dateSchema.safeParse(one).success);
  if (wrong !== undefined)
    context.addIssue({ code: 'custom', message: `"${wrong}" is no date: write YYYY-MM-DD, with commas between.` });
});

const datesOfText = (text: string) => text.split(/[\s,]+/).filter((part) => part !== '');

const weaveTextSchema = z.string().transform((text, context): Weave | undefined => {
  const read = readWeave(text);
  if (read.ok) return read.value;
  context.addIssue({ code: 'custom', message: read.message });
  return z.NEVER;
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
      from: optionalDate,
      to: optionalDate,
      days: z.array(z.number()),
      rule: z.string().trim(),
      windows: z.array(
        z.object({ start: z.string().trim(), end: z.string().trim() }).superRefine(({ start, end }, check) => {
          if (edgeOf(start, false) === null) check.addIssue({ code: 'custom', path: ['start'], message: START });
          if (edgeOf(end, true) === null) check.addIssue({ code: 'custom', path: ['end'], message: END });
        }),
      ),
      clock: z.string(),
      also: dateList,
      except: dateList,
      only: z.array(z.string()),
      not: z.array(z.string()),
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
    })
    .superRefine(({ from, to, rule, said, takeover, weave }, check) => {
      const issue = (path: string, message: string) => check.addIssue({ code: 'custom', path: [path], message });
      if (from && to && to < from) issue('to', 'The last day comes before the first.');
      const read = rule === '' ? null : parseRule(rule);
      if (read?.ok === false) issue('rule', read.message);
      if (rule !== '' && from === '') issue('from', 'A repeat needs its first day.');
      if (takeover && weave)
        issue('weave', 'A takeover is not woven in: it goes ahead of all. Take one of the two away.');
      const phrase = readWhen(said, context);
      if (!phrase.ok) issue('said', phrase.message);
    });
}

export type CheckedBooking = z.output<ReturnType<typeof bookingFormSchema>>;

/** The form, as its parts take it. */
export type BookingFormOf = UseFormReturn<z.input<ReturnType<typeof bookingFormSchema>>, unknown, CheckedBooking>;

/** A `When` as fields. */
export function whenValues(when: When): WhenValues {
  const rule = when.repeat === undefined ? null : parseRule(when.repeat);
  const weekly = rule?.ok && rule.value.interval === 1 ? weeklyDays(rule.value) : null;
  return {
    from: when.from ?? '',
    to: when.to ?? '',
    days: weekly ?? [],
    rule: weekly ? '' : (when.repeat ?? ''),
    windows: (when.windows ?? []).map(([start, end]) => ({ start: edgeWords(start), end: edgeWords(end) })),
    clock: when.clock ?? 'site',
    also: (when.also ?? []).join(', '),
    except: (when.except ?? []).join(', '),
    only: when.only ?? [],
    not: when.not ?? [],
  };
}

/** The form's inputs of which a `When` is made. */
export const WHEN_INPUTS = [
  'said',
  'from',
  'to',
  'days',
  'rule',
  'windows',
  'clock',
  'also',
  'except',
  'only',
  'not',
] as const satisfies readonly (keyof BookingValues)[];

/** The fields of a `When` that the form has inputs for: what else one says is kept. */
const KNOWN = ['clock', 'from', 'to', 'repeat', 'also', 'except', 'only', 'not', 'windows'];

/**
 * The `When` of checked fields; what `before` says besides is kept. `today` (YYYY-MM-DD) begins weekdays that have no first day.
 */
export function whenOf(values: WhenValues, today: string, before: When = {}): When {
  const { from, to, days, rule, windows, clock, only, not } = values;
  const repeat = rule !== '' ? rule : days.length > 0 && days.length < 7 ? weeklyRule(days) : undefined;
  const first = from !== '' ? from : repeat === undefined ? undefined : to !== '' && to < today ? to : today;
  const list = (key: string, entries: readonly unknown[]) => (entries.length > 0 ? { [key]: entries } : {});
  return whenSchema.parse({
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
      windows.map(({ start, end }) => [edgeOf(start, false) ?? start.trim(), edgeOf(end, true) ?? end.trim()]),
    ),
  });
}

/** The fields in words, or null while one of them is not valid. */
export function fieldsInWords(values: WhenValues, today: string): string | null {
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
    ...whenValues(when),
    priority: String(source.priority ?? 3),
    takeover: source.takeover ?? false,
    wake: source.wake ?? false,
    onHold: source.onHold ?? false,
    words: source.prepared?.words ?? '',
    lasts: source.prepared?.lasts === undefined ? '' : durationWords(source.prepared.lasts),
    weave: source.weave ? weaveWords(source.weave) : '',
  };
}

/** What is said of a takeover on hold; what stands there of one that is fired, or no takeover any more, is kept. */
function preparedOf(
  { takeover, onHold, words, lasts }: CheckedBooking,
  before: Booking | null,
): Pick<Booking, 'prepared'> {
  if (!takeover || !onHold) return before?.prepared ? { prepared: before.prepared } : {};
  const prepared = { ...(words === '' ? {} : { words }), ...(lasts === undefined ? {} : { lasts }) };
  return Object.keys(prepared).length > 0 ? { prepared } : {};
}

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
    ...preparedOf(values, before),
    ...(before?.drill ? { drill: true } : {}),
    created: before?.created ?? now.toISOString(),
    when: whenOf(values, now.toISOString().slice(0, 10), before?.when),
  };
}
