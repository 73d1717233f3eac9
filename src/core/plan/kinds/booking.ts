import * as z from 'zod';
import { whenSchema } from '../../when/schema';
import { contentSchema } from '../content-schema';
import { DAY, MINUTE } from '../../instant';
import { idSchema, instantSchema, lineSchema, nameSchema, selectorSchema } from '../fields';
import { defineKind } from '../kind';
import { reference } from '../references';
import { content, duration, durationWords, plain, selector, text, weaveWords, when, yesNo } from '../say';

const share = z
  .number('A share is a number from 0.001 to 0.9.')
  .min(0.001, 'A share is at least 0.001.')
  .max(0.9, 'A share is at most 0.9.')
  .refine((value) => Math.abs(value * 1000 - Math.round(value * 1000)) < 1e-6, 'A share has at most three decimals.');

/** How a booking is mixed into what shows, in place of competing with it: by its share of the time, or every so many milliseconds. */
const weaveSchema = z.union(
  [
    z.strictObject({ share }),
    z.strictObject({
      every: z
        .int('A weave’s “every” is a whole number of milliseconds.')
        .min(10_000, 'A weave’s “every” is at least 10 seconds.'),
    }),
  ],
  'A weave has a “share” from 0.001 to 0.9, or comes “every” so many milliseconds, 10 000 at least.',
);

/** For a takeover on hold: what the person who fires it is shown, and how long it then is in force. */
const preparedSchema = z.strictObject({
  words: lineSchema('Words', 300).optional(),
  lasts: z
    .int('A takeover’s duration is a whole number of milliseconds.')
    .min(MINUTE, 'A takeover lasts a minute at least.')
    .max(
      DAY - MINUTE,
      'A takeover with a duration ends within a day. Leave it out for one that lasts until the all-clear.',
    )
    .optional(),
});

/** One decision: what is shown, where, when, and how urgently. */
export const bookingSchema = z
  .strictObject({
    id: idSchema,
    name: nameSchema,
    content: contentSchema,
    where: selectorSchema,
    priority: z
      .int('A priority is a whole number from 1 to 5.')
      .min(1, 'A priority is 1 to 5.')
      .max(5, 'A priority is 1 to 5.')
      .default(3),
    takeover: z.boolean().optional(),
    wake: z.boolean().optional(),
    onHold: z.boolean().optional(),
    weave: weaveSchema.optional(),
    /** It waits for firings of this cue, and shows at no time by the clock. */
    cue: reference('cue').optional(),
    /** How long each firing lasts; absent: one round. */
    forMs: z
      .int('A time is a whole number of milliseconds.')
      .min(1000, 'A firing lasts a second at least.')
      .max(DAY, 'A firing lasts a day at most.')
      .optional(),
    /** Its layout is drawn over whatever plays, and doesn't compete with it. */
    overlay: z.strictObject({ overTakeovers: z.boolean().optional() }).optional(),
    prepared: preparedSchema.optional(),
    drill: z.boolean().optional(),
    created: instantSchema,
    when: whenSchema.default({}),
  })
  .refine(({ weave, takeover }) => !(weave && takeover), {
    path: ['weave'],
    message: 'A takeover shows alone, so it can’t share the loop. Turn one of the two off.',
  })
  .superRefine(({ weave, cue, forMs, overlay, takeover, content: what }, context) => {
    const report = (path: string, message: string) => context.addIssue({ code: 'custom', path: [path], message });
    if (weave && cue !== undefined)
      report('cue', 'A booking that shares the loop can’t wait for a cue. Turn one of the two off.');
    if (forMs !== undefined && cue === undefined)
      report('forMs', 'Only a booking that waits for a cue says how long it lasts. Give it a cue, or remove this.');
    if (!overlay) return;
    if (what.layout === undefined) report('content', 'Only a layout can be drawn over everything. Name one.');
    if (takeover)
      report('overlay', 'A takeover shows alone, so it can’t be drawn over what plays. Turn one of the two off.');
    if (weave) report('overlay', 'What shares the loop can’t be drawn over it. Turn one of the two off.');
    if (cue !== undefined) report('overlay', 'A layout over everything goes by the clock. Remove the cue.');
  });

export type Booking = z.infer<typeof bookingSchema>;

const preparedWords = ({ words, lasts }: NonNullable<Booking['prepared']>): string =>
  [
    ...(words === undefined ? [] : [`“${words}”`]),
    lasts === undefined ? 'until the all-clear' : `for ${durationWords(lasts)}`,
  ].join(', ');

export const booking = defineKind({
  kind: 'booking',
  collection: 'bookings',
  noun: 'booking',
  schema: bookingSchema,
  fields: {
    name: text('name'),
    content: content('what'),
    where: selector('where'),
    when: when('when'),
    priority: plain('priority'),
    takeover: yesNo('takeover'),
    wake: yesNo('wakes displays'),
    onHold: yesNo('on hold'),
    weave: { label: 'woven in', say: weaveWords },
    cue: { label: 'waits for', say: (id, names) => `“${names('cue', id)}”` },
    forMs: duration('lasts'),
    overlay: {
      label: 'over everything',
      say: ({ overTakeovers }) => (overTakeovers ? 'yes, over takeovers too' : 'yes'),
    },
    prepared: { label: 'prepared', say: preparedWords },
    drill: yesNo('drill'),
    created: plain('created'),
  },
  nameScope: () => 'network',
});
