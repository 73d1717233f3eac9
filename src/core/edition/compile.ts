import { programMaker, withoutProvenance, zonesOf, type ScreenProgram } from '../forecast';
import { done, refused, type Problem, type Result } from '../refusal';
import type { Media, Plan } from '../plan/schema';
import { trimZone, zoneTable, type ZoneTable } from '../when';
import { canonicalJson, sha256Hex } from './canonical';
import { touchedScreens } from './touched';

/** A file that a program needs. */
export interface Asset {
  readonly kind: Media['kind'];
  readonly sha256: string;
  readonly bytes: number;
  readonly type: string;
  readonly width: number;
  readonly height: number;
}

/** All that a screen needs to play for ever without a network. Named by the SHA-256 of its canonical form. */
export interface ProgramDocument extends ScreenProgram {
  readonly format: 'lanternpost/program';
  readonly version: 1;
  readonly zones: Readonly<Record<string, ZoneTable>>;
  /** By media id. */
  readonly assets: Readonly<Record<string, Asset>>;
}

export interface CompiledEdition {
  /** Canonical program documents by hash; with a base, the new ones alone. */
  readonly programs: ReadonlyMap<string, string>;
  /** Program hash by screen id. */
  readonly screens: ReadonlyMap<string, string>;
}

/** Clock changes that a program carries: fixed, so that the same plan compiles to the same hashes in every year. */
const ZONES_FROM = Date.UTC(2024, 0, 1);
const ZONES_TO = Date.UTC(2045, 0, 1);

/** What was compiled before: a plan that shares its objects with the next, and its hashes by screen. */
export interface CompiledBase {
  readonly plan: Plan;
  readonly screens: ReadonlyMap<string, string>;
}

/**
 * Compiles a checked plan: each screen's program, equal ones once. Pure: the same plan gives the same hashes anywhere.
 * Files without hash and type (not processed yet) that a program needs are told as problems instead. With a base, screens
 * that no change touches keep their hash, and their program is not made again: only new programs are in the result.
 */
export function compileEdition(plan: Plan, base?: CompiledBase): Result<CompiledEdition> {
  const narrow = programMaker(plan);
  const touched = base && touchedScreens(base.plan, plan);
  const files = new Map(plan.media.map((file, i) => [file.id, { file, path: `/media/${i}` }]));
  const programs = new Map<string, string>();
  const screens = new Map<string, string>();
  const errors = new Map<string, Problem>();
  for (const screen of plan.screens) {
    const known = touched?.has(screen.id) === false ? base?.screens.get(screen.id) : undefined;
    if (known !== undefined) {
      screens.set(screen.id, known);
      continue;
    }
    const program = narrow(screen.id);
    const assets: Record<string, Asset> = {};
    for (const { media: id } of program.loops.flat()) {
      const entry = files.get(id);
      if (!entry) continue;
      const { kind, sha256, bytes, type, width, height, name } = entry.file;
      if (sha256 === undefined || type === undefined)
        errors.set(id, {
          path: entry.path,
          message: `"${name}" has no file yet: wait until it is processed, or take it out.`,
        });
      else assets[id] = { kind, sha256, bytes, type, width, height };
    }
    const zones = Object.fromEntries(
      zonesOf(program).map((name) => [name, trimZone(zoneTable(name), ZONES_FROM, ZONES_TO)]),
    );
    const loops = program.loops.map((loop) => loop.map(withoutProvenance));
    const document: ProgramDocument = {
      format: 'lanternpost/program',
      version: 1,
      ...program,
      loops,
      zones,
      assets,
    };
    const text = canonicalJson(document);
    const hash = sha256Hex(text);
    programs.set(hash, text);
    screens.set(screen.id, hash);
  }
  return errors.size > 0 ? refused([...errors.values()]) : done({ programs, screens });
}
