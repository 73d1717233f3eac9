import { access } from 'node:fs/promises';
import { Refusal } from '@/core/refusal';
import { incomingPath } from './store';
import { SENT, runTool } from './studio';

/** Documents of pages: each page becomes a picture. */

const MOST_PAGES = 200;
/** Longer side of a page as a picture, in pixels: that of the largest screens. */
const LONGER_SIDE = 3840;
const OFFICE_WITHIN_MS = 180_000;

const broken = () => new Refusal(422, 'This document is damaged or incomplete. Export it again, then upload it.');

/** How many pages a PDF has. Throws 422 with a sentence for one that is locked, broken, or has too many. */
export async function countPages(path: string): Promise<number> {
  const { stdout } = await runTool('pdfinfo', [SENT], { reads: path }).catch((error: { stderr?: string }) => {
    throw /password/i.test(error.stderr ?? '')
      ? new Refusal(422, 'This PDF is locked. Save it without a password, then upload it again.')
      : broken();
  });
  const pages = Number(/^Pages:\s+(\d+)$/m.exec(stdout)?.[1]);
  if (!(pages >= 1)) throw broken();
  if (pages > MOST_PAGES)
    throw new Refusal(422, `This document has ${pages} pages. At most ${MOST_PAGES} are accepted, so split it.`);
  return pages;
}

/** Draws one page, counted from 1, as a PNG; nothing that it would run is run. The caller adopts or removes the path. */
export async function drawPage(path: string, page: number): Promise<string> {
  const target = await incomingPath('.png');
  const only = ['-f', String(page), '-l', String(page)];
  try {
    const { stdout } = await runTool('pdfinfo', [...only, SENT], { reads: path });
    const [, width = '', height = ''] = /^Page\s+\d+ size:\s+([\d.]+) x ([\d.]+) pts/m.exec(stdout) ?? [];
    const turned = /^Page\s+\d+ rot:\s+(?:90|270)$/m.test(stdout);
    const [w, h] = turned ? [Number(height), Number(width)] : [Number(width), Number(height)];
    const scale = LONGER_SIDE / Math.max(w, h);
    const size = (points: number) => String(Math.max(1, Math.round(points * scale)));
    await runTool(
      'pdftoppm',
      ['-png', '-singlefile', ...only, '-scale-to-x', size(w), '-scale-to-y', size(h), SENT, 'page'],
      { reads: path, makes: { name: 'page.png', to: target } },
    );
    return target;
  } catch {
    throw broken();
  }
}

/** The text of one page, counted from 1; empty if it can't be read. */
export async function pageText(path: string, page: number): Promise<string> {
  const only = ['-f', String(page), '-l', String(page)];
  return runTool('pdftotext', [...only, '-enc', 'UTF-8', SENT, '-'], { reads: path }).then(
    ({ stdout }) => stdout,
    () => '',
  );
}

/** Makes a PDF of a presentation, where LibreOffice is installed. Throws 415 with a sentence where it is not, 422 for a broken one. */
export async function officeToPdf(path: string): Promise<string> {
  const target = await incomingPath('.pdf');
  await runTool(
    'soffice',
    [
      ...['-env:UserInstallation=file:///tmp/profile', '--headless', '--norestore'],
      ...['--convert-to', 'pdf', '--outdir', 'out', SENT],
    ],
    { reads: path, makes: { name: `out/${SENT}.pdf`, to: target }, withinMs: OFFICE_WITHIN_MS },
  ).catch((error: { code?: unknown; stderr?: string }) => {
    throw error.code === 127 || /No such file|not found/i.test(error.stderr ?? '')
      ? new Refusal(
          415,
          'This server can’t open presentations, because LibreOffice isn’t installed. Save it as PDF, then upload that.',
        )
      : broken();
  });
  await access(target).catch(() => Promise.reject(broken()));
  return target;
}
