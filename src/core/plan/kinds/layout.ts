import * as z from 'zod';
import { whenSchema } from '../../when/schema';
import { contentSchema } from '../content-schema';
import { durationSchema, idSchema, nameSchema, pixelsSchema, selectorSchema } from '../fields';
import { defineKind } from '../kind';
import { FITS, transitionSchema, transitionWords } from '../looks';
import { reference } from '../references';
import { content, duration, pixels, plain, selector, text, when, yesNo } from '../say';

/** Zones of one layout, at most: more than a person can tell apart from a distance. */
export const MOST_ZONES = 24;

const place = z.int('A place is a whole number of pixels.').min(0, 'A place is 0 pixels or more.').max(32_768);

const zoneSchema = z
  .strictObject({
    id: idSchema,
    x: place,
    y: place,
    width: pixelsSchema,
    height: pixelsSchema,
    /** What shows in it; absent: nothing yet. */
    content: contentSchema.optional(),
    /** How its content is placed in it, unless an item has its own. */
    fit: z.enum(FITS, 'A fit is whole, fill, stretch or exact.').optional(),
    /** How what shows gives way to the next, unless an item has its own. */
    transition: transitionSchema.optional(),
    /** Its videos are heard, by their own volume. One zone at most; the others are silent. */
    sound: z.boolean().optional(),
    where: selectorSchema.optional(),
    when: whenSchema.optional(),
    /** Its clock starts with what is booked, and not again with each showing of the layout. */
    goesOn: z.boolean().optional(),
    /** What a touch on it fires; absent `where`: on all screens that the cue's bookings reach. */
    touch: z.strictObject({ cue: reference('cue'), where: selectorSchema.optional() }).optional(),
  })
  .superRefine(({ content: what }, context) => {
    if (what?.layout !== undefined)
      context.addIssue({
        code: 'custom',
        path: ['content'],
        message: 'A zone can’t show a layout. Name a file, playlist, bulletin or input.',
      });
  });

/** Several things on one screen: zones in their places, a later one above an earlier one. */
export const layoutSchema = z
  .strictObject({
    id: idSchema,
    name: nameSchema,
    width: pixelsSchema,
    height: pixelsSchema,
    /** Its time as an item of a playlist, where the item says none. */
    durationMs: durationSchema.optional(),
    background: z
      .string()
      .regex(/^#[0-9a-f]{6}$/i, 'A background is a colour like #1B2330.')
      .optional(),
    zones: z.array(zoneSchema).max(MOST_ZONES, `A layout has at most ${MOST_ZONES} zones.`),
  })
  .superRefine(({ width, height, zones }, context) => {
    const seen = new Set<string>();
    let heard: string | null = null;
    zones.forEach((zone, i) => {
      const report = (field: string, message: string) =>
        context.addIssue({ code: 'custom', path: ['zones', i, field], message });
      if (seen.has(zone.id)) report('id', `Another zone already has the id “${zone.id}”. Each zone needs its own id.`);
      seen.add(zone.id);
      if (zone.x + zone.width > width) report('width', `This zone goes beyond the layout’s ${width} pixels.`);
      if (zone.y + zone.height > height) report('height', `This zone goes beyond the layout’s ${height} pixels.`);
      if (!zone.sound) return;
      if (heard !== null) report('sound', `The zone “${heard}” is heard already. Only one zone can be.`);
      heard ??= zone.id;
    });
  });

export type Layout = z.infer<typeof layoutSchema>;
export type Zone = Layout['zones'][number];

export const layout = defineKind({
  kind: 'layout',
  collection: 'layouts',
  noun: 'layout',
  schema: layoutSchema,
  fields: {
    name: text('name'),
    width: pixels('width'),
    height: pixels('height'),
    durationMs: duration(),
    background: plain('background'),
    zones: { label: 'zones', say: (zones) => `${zones.length}` },
  },
  nameScope: () => 'network',
  entries: {
    zones: {
      // Forecasts and reports name zones by their ids.
      named: true,
      name: (zone) => String(zone.id),
      fields: {
        x: pixels('left'),
        y: pixels('top'),
        width: pixels('width'),
        height: pixels('height'),
        content: content('what'),
        fit: plain('fit'),
        transition: { label: 'transition', say: transitionWords },
        sound: yesNo('heard'),
        where: selector('where'),
        when: when('when'),
        goesOn: yesNo('goes on between showings'),
        touch: {
          label: 'touch',
          say: ({ cue }: { readonly cue: string }, names) => `fires “${names('cue', cue)}”`,
        },
      },
    },
  },
});
