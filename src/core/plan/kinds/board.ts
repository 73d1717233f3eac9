import * as z from 'zod';
import { idSchema, nameSchema, selectorSchema } from '../fields';
import { defineKind } from '../kind';
import { reference } from '../references';
import { plain, selector, text } from '../say';

/** Buttons of one board, at most: more than a thumb finds. */
const MOST_BUTTONS = 40;

/** The colours of our palette that a button may have; amber is only for what is on. */
export const BUTTON_COLOURS = ['dusk', 'tide', 'brick', 'ink', 'paper'] as const;
export type ButtonColour = (typeof BUTTON_COLOURS)[number];

const buttonSchema = z.strictObject({
  /** The entry's own id, by which it is patched. */
  id: idSchema.optional(),
  /** What it says; absent: the cue's name. */
  label: nameSchema.optional(),
  cue: reference('cue'),
  /** On which screens it fires; absent: on all that the cue's bookings reach. */
  where: selectorSchema.optional(),
  colour: z.enum(BUTTON_COLOURS, `A colour is one of ${BUTTON_COLOURS.join(', ')}.`).optional(),
  picture: reference('media').optional(),
});

/** Buttons that fire cues, for people who press them on a page or on a phone. It takes effect without being published. */
export const boardSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  buttons: z
    .array(buttonSchema)
    .max(MOST_BUTTONS, `A board has at most ${MOST_BUTTONS} buttons.`)
    .superRefine((buttons, context) => {
      const seen = new Set<string>();
      buttons.forEach(({ id }, i) => {
        if (id !== undefined && seen.has(id))
          context.addIssue({
            code: 'custom',
            path: [i, 'id'],
            message: `Another button already has the id “${id}”. Each button needs its own id.`,
          });
        if (id !== undefined) seen.add(id);
      });
    })
    .default([]),
});

export type Board = z.output<typeof boardSchema>;
export type BoardButton = Board['buttons'][number];

export const board = defineKind({
  kind: 'board',
  collection: 'boards',
  noun: 'board',
  schema: boardSchema,
  fields: {
    name: text('name'),
    buttons: { label: 'buttons', say: (buttons) => `${buttons.length}` },
  },
  nameScope: () => 'network',
  entries: {
    buttons: {
      name: (button, names) => String(button.label ?? names('cue', String(button.cue))),
      fields: {
        label: text('says'),
        cue: { label: 'cue', say: (id: string, names) => `“${names('cue', id)}”` },
        where: selector('where'),
        colour: plain('colour'),
        picture: { label: 'picture', say: (id: string, names) => `“${names('media', id)}”` },
      },
    },
  },
});
