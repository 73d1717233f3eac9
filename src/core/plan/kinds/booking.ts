import { z } from 'zod';
import { whenSchema } from '../../when/schema';
import { contentSchema } from '../content';
import { idSchema, instantSchema, nameSchema, selectorSchema } from '../fields';
import { defineKind } from '../kind';
import { content, plain, selector, text, when, yesNo } from '../say';

/** One decision: what is shown, where, when, and how urgently. */
export const bookingSchema = z.strictObject({
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
  created: instantSchema,
  when: whenSchema.default({}),
});

export type Booking = z.infer<typeof bookingSchema>;

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
    created: plain('created'),
  },
  nameScope: () => 'network',
});
