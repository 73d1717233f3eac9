export { SimulatedPlayer, type Character } from './simulated-player';
