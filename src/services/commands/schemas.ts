import * as z from 'zod';
import {
  COMMANDS,
  COMMAND_KINDS,
  KEPT_AT_LEAST_MS,
  KEPT_AT_MOST_MS,
  KEPT_MS,
  SPREAD_AT_MOST_MS,
  type Amount,
  type CommandKind,
} from '@/core/commands';
import { idSchema } from '@/core/plan';

const LISTED = COMMAND_KINDS.join(', ');

/** A command as a page or a program sends it: to screens by their ids, or to those that a selector finds. */
export const commandSchema = z
  .strictObject({
    kind: z.enum(COMMAND_KINDS as [CommandKind, ...CommandKind[]], `Choose a command: ${LISTED}.`),
    percent: z.int('Write a whole number from 0 to 100.').optional(),
    degrees: z.int('Choose 0, 90, 180 or 270 degrees.').optional(),
    input: idSchema.optional(),
    screens: z.array(idSchema).min(1, 'Choose at least one screen.').max(10_000).optional(),
    where: z.string().max(2000).optional(),
    keptMs: z
      .int()
      .min(KEPT_AT_LEAST_MS, 'A command is kept for 10 seconds at least.')
      .max(KEPT_AT_MOST_MS, 'A command is kept for 7 days at most.')
      .default(KEPT_MS),
    spreadMs: z.int().min(0).max(SPREAD_AT_MOST_MS, 'A command can be spread over 12 hours at most.').default(0),
  })
  .superRefine(({ kind, percent, degrees, input, screens, where }, context) => {
    const wrong = (path: string, message: string) => context.addIssue({ code: 'custom', path: [path], message });
    if ((screens === undefined) === (where === undefined))
      wrong('where', 'Say which screens: either by their ids in “screens”, or by a selector in “where”.');
    const { amount, name } = COMMANDS[kind];
    for (const [field, value] of Object.entries({ percent, degrees, input })) {
      if (amount?.field === field) {
        const why = misfit(amount, value);
        if (why !== null) wrong(field, why);
      } else if (value !== undefined) wrong(field, `“${name}” takes no “${field}”. Leave it out.`);
    }
  });

/** Why a value isn't what goes with a command; null if it is. */
function misfit({ field, values, most = 100 }: Amount, value: number | string | undefined): string | null {
  if (field === 'input') return value === undefined ? 'Say which input, such as “hdmi-1”.' : null;
  if (values) return values.includes(Number(value)) ? null : 'Choose 0, 90, 180 or 270 degrees.';
  return Number(value) >= 0 && Number(value) <= most ? null : `Write a whole number from 0 to ${most}.`;
}
