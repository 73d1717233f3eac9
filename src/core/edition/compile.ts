import { programMaker, namedZones, withoutProvenance, type Loop, type ScreenProgram } from '../forecast';
import { answered, done, refused, type Problem, type Result } from '../refusal';
import type { ShownMedia } from '../plan/kinds/media';
import { isShown } from '../plan/known';
import type { Media, Plan } from '../plan/schema';
import { trimZone, zoneTable, type ZoneTable } from '../when';
import { sha256Hex } from '../sha256';
import { canonicalWriter } from './canonical';
import { touchedScreens } from './touched';

interface AssetFile {
  readonly sha256: string;
  readonly bytes: number;
  readonly type: string;
}

/** A picture or film that a program needs. */
export interface ShownAsset extends AssetFile {
  readonly kind: ShownMedia['kind'];
  readonly width: number;
  readonly height: number;
  /** The point that stays visible when the picture is cropped to fill a screen: from its left, and from its top, 0 to 1. Absent: its middle. */
  readonly focus?: readonly [x: number, y: number] | undefined;
}

/** A sound that a program needs. */
export interface SoundAsset extends AssetFile {
  readonly kind: 'sound';
}

/** A file that a program needs. */
export type Asset = ShownAsset | SoundAsset;

/** All that a screen needs to play for ever without a network. Named by the SHA-256 of its canonical form. */
export interface ProgramDocument extends ScreenProgram {
  readonly format: 'lanternpost/program';
  readonly version: 1;
  readonly zones: Readonly<Record<string, ZoneTable>>;
  /** By media id. */
  readonly assets: Readonly<Record<string, Asset>>;
}

/** A program's text in pieces that programs share as the same strings, the first of them saying what it needs; joined they are canonical. */
export interface MadeProgram {
  readonly parts: readonly string[];
  readonly assets: ProgramDocument['assets'];
}

/** The SHA-256 of a text that is given in pieces, as `sha256Hex` gives it. */
export type Digest = (parts: readonly string[]) => string;

export interface CompiledEdition {
  /** Canonical program documents by hash; with a base, the new ones alone. */
  readonly programs: ReadonlyMap<string, string>;
  /** How each of these is put together, by its hash. */
  readonly made: ReadonlyMap<string, MadeProgram>;
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
 * If a program needs files without hash and type (not processed yet), the result is those problems instead. With a base, screens
 * that no change touches keep their hash, and their program is not made again: only new programs are in the result.
 */
export function compileEdition(plan: Plan, base?: CompiledBase): Result<CompiledEdition> {
  const steps = compilationSteps(plan, base);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

/** The same in steps, one a screen, so that a server can look after others in between. */
export function* compilationSteps(
  plan: Plan,
  base?: CompiledBase,
  digest: Digest = (parts) => sha256Hex(parts.join('')),
): Generator<void, Result<CompiledEdition>> {
  const touched = base && touchedScreens(base.plan, plan);
  const narrow = programMaker(plan);
  const make = maker(plan);
  const hashes = new Map<ScreenProgram, string>();
  const programs = new Map<string, string>();
  const made = new Map<string, MadeProgram>();
  const screens = new Map<string, string>();
  const errors = new Map<string, Problem>();
  for (const { id } of plan.screens) {
    const known = touched?.has(id) === false ? base?.screens.get(id) : undefined;
    if (known !== undefined) {
      screens.set(id, known);
      continue;
    }
    const narrowed = answered(() => narrow(id));
    if (!narrowed.ok) return narrowed;
    const program = narrowed.value;
    let hash = hashes.get(program);
    if (hash === undefined) {
      const { parts, assets, problems } = make(program);
      for (const problem of problems) errors.set(problem.path, problem);
      hash = digest(parts);
      hashes.set(program, hash);
      programs.set(
        hash,
        parts.reduce((text, part) => text + part),
      );
      made.set(hash, { parts, assets });
    }
    screens.set(id, hash);
    yield;
  }
  if (errors.size > 0) return refused([...errors.values()]);
  return done({ programs, made, screens });
}

/**
 * Makes the documents of one plan's programs, in canonical form. There all that it says stands between what it needs and its clocks: so
 * programs that are alike but for their zone differ in the last part alone, and no part is written twice.
 */
function maker(plan: Plan): (program: ScreenProgram) => MadeProgram & { readonly problems: readonly Problem[] } {
  const write = canonicalWriter();
  const files = new Map(plan.media.map((file, i) => [file.id, fileOf(file, `/media/${i}`)]));
  const zones = new Map<string, ZoneTable>();
  const zoneOf = (name: string): ZoneTable => {
    const zone = zones.get(name) ?? trimZone(zoneTable(name), ZONES_FROM, ZONES_TO);
    zones.set(name, zone);
    return zone;
  };
  const bare = new Map<Loop, Loop>();
  const bareOf = (loop: Loop): Loop => {
    const items = bare.get(loop) ?? loop.map(withoutProvenance);
    bare.set(loop, items);
    return items;
  };
  const clocks = new Map<string, string>();
  const clocksOf = (zone: string, named: readonly string[]): string => {
    const names = [...new Set([zone, ...named])];
    const key = names.join();
    let text = clocks.get(key);
    if (text === undefined) {
      const tables = Object.fromEntries(names.map((name) => [name, zoneOf(name)]));
      clocks.set(key, (text = `,${write({ zone, zones: tables }).slice(1)}`));
    }
    return text;
  };
  const bodyOf = (program: ScreenProgram): Body => {
    const assets: Record<string, Asset> = {};
    const problems: Problem[] = [];
    for (const loop of [...program.loops, ...(program.music ?? []).map((one) => one?.loop ?? [])])
      for (const { media } of loop) {
        if (media === undefined) continue;
        const file = files.get(media);
        if (file?.ok) assets[media] = file.value;
        else if (file) problems.push(...file.problems);
      }
    const needs = `{"assets":${write(assets)}`;
    return { assets, problems, needs, says: new Map(), zones: namedZones(program) };
  };
  /** By the loops: programs that are alike but for their place have the same. */
  const bodies = new Map<readonly Loop[], Body>();
  return (program) => {
    const { zone, hours, location, loops, firings: _facts, ...rest } = program;
    const body = bodies.get(loops) ?? bodyOf(program);
    bodies.set(loops, body);
    const site = { ...(hours ? { hours } : {}), ...(location ? { location } : {}) };
    const key = write(site);
    let says = body.says.get(key);
    if (says === undefined) {
      const head = { format: 'lanternpost/program', version: 1, ...site };
      says = `,${write({ ...head, ...rest, loops: loops.map(bareOf) }).slice(1, -1)}`;
      body.says.set(key, says);
    }
    return { parts: [body.needs, says, clocksOf(zone, body.zones)], assets: body.assets, problems: body.problems };
  };
}

/** What programs of the same loops have in common. */
interface Body {
  readonly assets: ProgramDocument['assets'];
  readonly problems: readonly Problem[];
  readonly needs: string;
  /** What they say, by their site's opening hours and location. */
  readonly says: Map<string, string>;
  /** The zones that bookings and the like name. */
  readonly zones: readonly string[];
}

/** What a program says of a file; a problem if its bytes aren't here yet. */
function fileOf(file: Media, path: string): Result<Asset> {
  const { sha256, type, bytes } = file;
  if (sha256 === undefined || type === undefined)
    return refused([{ path, message: `“${file.name}” isn’t processed yet. Wait a moment, or remove it.` }]);
  const same = { sha256, bytes, type };
  if (!isShown(file)) return done({ kind: 'sound', ...same });
  const { kind, width, height, focus } = file;
  return done({ kind, ...same, width, height, ...(focus ? { focus } : {}) });
}
