import { database } from './connection';

// Models answer only once they are bound; where the address is known from the start, they are from the start.
if (process.env.DATABASE_URL) database();

export * from './models';
export { closeDatabase, database, rows, rowsOfMany, snapshot, transaction } from './connection';
export { onBehalfOf } from './shares';
export { closeBus, publish, subscribe, type BusMessage, type UploadProgress } from './bus';
export { ProcessLocks } from './locks';
export { migrate } from './migrate';
export { closeQueue, enqueue, enqueueAll, openQueue, QUEUES, type JobName, type Jobs } from './queue';
export { uuidv7 } from './uuid';
