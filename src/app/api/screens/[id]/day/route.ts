import * as z from 'zod';
import { formatDate, parseDate } from '@/core/when';
import { screenDay } from '@/services/editions';
import { answerAs, readQuery, textFile } from '@/web/routes';

export const dynamic = 'force-dynamic';

const querySchema = z.object({
  date: z
    .string()
    .transform((text, context) => {
      const date = parseDate(text);
      if (date === null) context.addIssue({ code: 'custom', message: 'Write a date that exists as YYYY-MM-DD.' });
      return date ?? z.NEVER;
    })
    .optional(),
});

/** What a screen shows on a day, by the newest edition, as SMIL 3.0. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return answerAs(request, async (actor) => {
    const { id } = await params;
    const { date } = readQuery(request, querySchema);
    const text = await screenDay(actor, id, date ?? null);
    const name = date === undefined ? `${id}.smil` : `${id}-${formatDate(date)}.smil`;
    return textFile({ name, type: 'application/smil+xml; charset=utf-8', text });
  });
}
