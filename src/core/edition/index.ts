export { canonicalJson, sha256Hex } from './canonical';
export { compileEdition, type Asset, type CompiledEdition, type ProgramDocument } from './compile';
