/** The part of the core that a player needs: no schemas, so that the player stays small. */
export { DAY, HOUR, MINUTE, SECOND, type Instant } from './instant';
export { forecast, forecastAt } from './forecast/forecast';
export { placeOf, withFirings } from './forecast/program';
export { type LoopItem } from './forecast/loop';
export { isPresented, stepFrom, withStep, holds, type Stepped } from './forecast/stepping';
export { drawnItems, layoutItems, loopsIn, musicPlays, zonePlays, type Play, type WholePlay } from './forecast/plays';
export { drawnIn, drawnOnly } from './plan/contents';
export type { Segment } from './forecast/segments';
export { sha256Hex } from './sha256';
export type { Asset, ProgramDocument, ShownAsset, SoundAsset } from './edition/compile';
export { never } from './refusal';
export { lineOf } from './text';
