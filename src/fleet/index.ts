export { SimulatedPlayer, type Character } from './simulated-player';
export type { DeviceFault } from './simulated-hardware';
