export { startWorker } from './worker';
