import type { ProgramDocument } from '@/core/edition';
import { withFirings } from '@/core/forecast';
import { looksAt, type GlassLooks } from '@/core/glimpses';
import { SECOND } from '@/core/instant';
import { partAt, type Part, type Wall } from '@/core/walls';
import { publish, rows, transaction } from '@/database';
import { firingsOn } from '../cues';
import { canvasOf, jpegOf, type Size, type View } from './draw';
import { compared, isKnown, planned, type Compared } from './explain';
import { LONGER_SIDE } from './take';

/** The worker's side: draws what the forecast says for the instant of a picture, and compares the two. */

interface Found extends Size {
  readonly network: string;
  readonly screen: string;
  readonly part: number;
  readonly takenAt: Date;
  readonly picture: Buffer;
  readonly text: string;
  readonly wall: Wall | null;
}

/** A wall's whole picture is drawn so large at most. */
const MOST_OF_A_WALL = 2560;
const QUALITY = 60;
/** A player may hear of a firing so late: until then it may show what was on before. */
const TOLD_WITHIN_MS = 5 * SECOND;
const UNSURE: Compared = { verdict: 'unsure', different: null };

/** Compares a picture with the forecast of its instant. Safe to run again. Does nothing if the picture is gone, or if there is a newer one of its screen. */
export async function compareGlimpse({ glimpse }: { readonly glimpse: string }): Promise<void> {
  const [found] = await rows<Found>(
    `SELECT g.network_id AS network, g.screen, g.part, g.taken_at AS "takenAt", g.picture, d.document AS text, o.document->'wall' AS wall,
       (o.document->>'width')::int AS width, (o.document->>'height')::int AS height
     FROM glimpses g JOIN program_documents d ON d.hash = g.program
       JOIN plan_objects o ON o.network_id = g.network_id AND o.kind = 'screen' AND o.slug = g.screen
     -- A newer picture of the screen says more, and where many come at once there is not time for each.
     WHERE NOT EXISTS (SELECT 1 FROM glimpses n WHERE n.network_id = g.network_id AND n.screen = g.screen AND n.part = g.part AND n.taken_at > g.taken_at)
     -- A player may name any program: what others show must not be seen by this.
     AND g.id = $1 AND EXISTS (SELECT 1 FROM edition_screens s JOIN editions e ON e.id = s.edition_id
       WHERE g.program IN (s.hash, s.delivered) AND s.screen = g.screen AND e.network_id = g.network_id)`,
    [glimpse],
  );
  if (!found) return;
  const { network, screen, takenAt, picture, text, wall } = found;
  const part = wall ? partAt(wall, found.part) : null;
  // It was taken of a display that the wall no longer has.
  if (wall && !part) return;
  const program = JSON.parse(text) as ProgramDocument;
  const glasses = await mayShow(network, screen, program, takenAt.getTime());
  // The player shows its own card, or another source: the plan doesn't say how that looks.
  if (!isKnown(glasses[0])) return;
  const view = viewOf(found, part);
  const whole = { left: 0, top: 0, width: found.width, height: found.height };
  const seen = await canvasOf(picture, view);
  const all = await Promise.all(glasses.map((glass) => compared(seen, glass, whole, view)));
  const expected = await planned(glasses[0], whole, view);
  const [first] = all;
  // A file that is no longer stored here can't be compared.
  if (!first || !expected) return;
  const { verdict, different } = all.find((one) => one?.verdict === 'alike') ?? (all.length > 1 ? UNSURE : first);
  await transaction(async (within) => {
    await rows(
      'UPDATE glimpses SET verdict = $2, expected = $3, different = $4 WHERE id = $1',
      [glimpse, verdict, await jpegOf(expected, view, QUALITY), different],
      within,
    );
    await rows(
      `UPDATE players p SET glimpse = jsonb_build_object('verdict', $3::text, 'at', $4::bigint) FROM plan_objects o
       WHERE o.id = p.screen_id AND p.network_id = $1 AND o.slug = $2 AND p.part = $5 AND COALESCE((p.glimpse->>'at')::bigint, 0) < $4`,
      [network, screen, verdict, takenAt.getTime(), found.part],
      within,
    );
    await publish({ kind: 'glimpses', network, screens: [screen] }, within);
    await publish({ kind: 'beats', network }, within);
  });
}

/** What a screen may show at an instant, with what was fired on it: what it should show first. */
async function mayShow(
  network: string,
  screen: string,
  program: ProgramDocument,
  at: number,
): Promise<[GlassLooks, ...GlassLooks[]]> {
  const firings = await firingsOn(network, screen, at);
  const heard = firings.filter((one) => one.at < at - TOLD_WITHIN_MS);
  const due = looksAt(withFirings(program, firings), at);
  return heard.length === firings.length ? [due] : [due, looksAt(withFirings(program, heard), at)];
}

/** A picture of a display, about as large as players send it. */
function viewOf({ width, height }: Size, part: Part | null): View {
  const shown = part ?? { left: 0, top: 0, width: 1, height: 1 };
  const scale = part
    ? Math.min(MOST_OF_A_WALL, LONGER_SIDE / Math.max(part.width, part.height)) / Math.max(width, height)
    : LONGER_SIDE / Math.max(width, height);
  const pixels = (length: number) => Math.max(1, Math.round(length * scale));
  return {
    ...{ left: shown.left * width, top: shown.top * height, scale },
    size: { width: pixels(shown.width * width), height: pixels(shown.height * height) },
  };
}
