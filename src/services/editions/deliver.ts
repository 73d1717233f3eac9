import type { Transaction } from 'sequelize';
import { canonicalWriter, type MadeProgram, type ProgramDocument } from '@/core/edition';
import type { Plan, Screen } from '@/core/plan';
import { rows, rowsOfMany } from '@/database';
import { fitted, renditionsOf, wantRenditions, type Rendition } from '../library';
import { digester } from './compile';
import type { Frozen } from './frozen';
import { programsBy, writePrograms } from './programs';

/**
 * What players get: an edition's programs, with the renditions that there are for each screen's size in place of files that are larger.
 * What is seen, and when, is the same.
 */

interface Given {
  readonly screen: string;
  readonly hash: string;
  readonly delivered: string | null;
}

/** An edition whose screens are to be looked at: all of them, or some; and what was just compiled of it. */
interface Delivering {
  readonly id: string;
  readonly plan: Plan;
  readonly only?: ReadonlySet<string> | undefined;
  readonly compiled?: ReadonlyMap<string, MadeProgram> | undefined;
}

/** Brings what an edition delivers up to date with the renditions that there are, and asks for those that are missing. Whether it differs. */
export async function deliverEdition({ id, plan, only, compiled }: Delivering, within: Transaction): Promise<boolean> {
  const all = await rows<Given>(
    'SELECT screen, hash, delivered FROM edition_screens WHERE edition_id = $1 ORDER BY screen',
    [id],
    within,
  );
  const given = only ? all.filter(({ screen }) => only.has(screen)) : all;
  const screens = new Map(plan.screens.map((screen) => [screen.id, screen]));
  const programs = await written([...new Set(given.map(({ hash }) => hash))], compiled, within);
  const assets = new Map(
    [...programs.values()].flatMap((one) => Object.values(one.assets)).map((asset) => [asset.sha256, asset]),
  );
  await wantRenditions(
    [...assets.values()].filter((asset) => asset.kind !== 'sound'),
    plan.screens,
    within,
    { ahead: true },
  );
  const made = new Map<string, MadeProgram>();
  const hashes = new Map<string, string | null>();
  const digest = digester();
  const fit = fitter(await renditionsOf([...assets.keys()], within));
  const next = (hash: string, screen: Screen): string | null => {
    const key = `${hash} ${screen.width}x${screen.height}`;
    const found = hashes.get(key);
    if (found !== undefined) return found;
    const program = programs.get(hash);
    const fitting = program ? fit(program, screen) : null;
    const smaller = fitting && digest(fitting.parts);
    if (fitting && smaller !== null) made.set(smaller, fitting);
    hashes.set(key, smaller);
    return smaller;
  };
  const changes = given.flatMap(({ screen, hash, delivered }) => {
    const place = screens.get(screen);
    const now = place ? next(hash, place) : null;
    return now === delivered ? [] : [{ screen, delivered: now }];
  });
  if (changes.length === 0) return false;
  await writePrograms(made, within);
  await rowsOfMany(
    `UPDATE edition_screens s SET delivered = x.delivered FROM jsonb_to_recordset($2::jsonb) AS x(screen text, delivered text)
     WHERE s.edition_id = $1 AND s.screen = x.screen`,
    [id, JSON.stringify(changes)],
    changes.length,
    within,
  );
  return true;
}

/** Programs by their hashes: those that were just compiled, and of the others what the database has. */
async function written(
  hashes: readonly string[],
  compiled: ReadonlyMap<string, MadeProgram> | undefined,
  within: Transaction,
): Promise<Map<string, MadeProgram>> {
  const known = await programsBy(
    hashes.filter((hash) => !compiled?.has(hash)),
    within,
  );
  return new Map([...(compiled ?? []), ...known]);
}

/** What makes programs with what fits a screen's size, in canonical form; null where all its files are right as they are. */
function fitter(
  known: ReadonlyMap<string, readonly Rendition[]>,
): (program: MadeProgram, screen: Screen) => MadeProgram | null {
  const write = canonicalWriter();
  const fittedBySize = new Map<string, WeakMap<Assets, Assets>>();
  const fittedAssets = (assets: Assets, screen: Screen, exact: ReadonlySet<string>): Assets => {
    const size = `${screen.width}x${screen.height} ${[...exact].join()}`;
    const bySize = fittedBySize.get(size) ?? new WeakMap<Assets, Assets>();
    fittedBySize.set(size, bySize);
    let next = bySize.get(assets);
    if (!next) {
      let smaller = false;
      const list = Object.entries(assets).map(([id, asset]) => {
        const fits = exact.has(id) ? asset : fitted(asset, screen, known.get(asset.sha256) ?? []);
        smaller ||= fits !== asset;
        return [id, fits] as const;
      });
      bySize.set(assets, (next = smaller ? Object.fromEntries(list) : assets));
    }
    return next;
  };
  return ({ parts, assets }, screen) => {
    if (!Object.values(assets).some(({ sha256 }) => known.has(sha256))) return null;
    // What is shown pixel for pixel is shown by the file's own.
    const exact = new Set(parts.some((part) => part.includes('"fit":"exact"')) ? exactIn(parts) : []);
    const next = fittedAssets(assets, screen, exact);
    // What it needs stands first: the rest of the text stays, however long it is.
    return next === assets ? null : { parts: [`{"assets":${write(next)}`, ...parts.slice(1)], assets: next };
  };
}

type Assets = MadeProgram['assets'];

const exactIn = (parts: readonly string[]) =>
  (JSON.parse(parts.join('')) as ProgramDocument).loops
    .flat()
    .flatMap(({ media, fit }) => (fit === 'exact' ? (media ?? []) : []));

/**
 * What screens of a new edition get as they did in the one before it: where a screen has the same program and the same size. By screen; null
 * for the program as the plan has it. All other screens are to be looked at by `deliverEdition`: so a large network is not gone through
 * for a small change.
 */
export async function deliveredAsBefore(
  { plan, screens }: { readonly plan: Plan; readonly screens: ReadonlyMap<string, string> },
  before: Frozen | null,
  within: Transaction,
): Promise<Map<string, string | null>> {
  if (!before) return new Map();
  const sizes = new Map(before.plan.screens.map(({ id, width, height }) => [id, `${width}x${height}`]));
  const alike = new Set(
    plan.screens.filter(({ id, width, height }) => sizes.get(id) === `${width}x${height}`).map(({ id }) => id),
  );
  const given = await rows<Given>(
    'SELECT screen, hash, delivered FROM edition_screens WHERE edition_id = $1',
    [before.id],
    within,
  );
  return new Map(
    given
      .filter(({ screen, hash }) => alike.has(screen) && screens.get(screen) === hash)
      .map(({ screen, delivered }) => [screen, delivered]),
  );
}
