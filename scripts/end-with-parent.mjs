// Loaded into each process that `lanternpost start` runs (`--import`). Through a pipe on descriptor 3 it tells its parent every second
// that it is alive, and ends when the parent does, however that came about: nothing runs on unwatched.
import { Socket } from 'node:net';
import { setInterval } from 'node:timers';
import { isMainThread } from 'node:worker_threads';

// Threads and processes that a child makes in its turn are its own affair.
if (isMainThread && process.env.LANTERNPOST_PARENT === String(process.ppid)) {
  const parent = new Socket({ fd: 3, readable: true, writable: true });
  parent.on('error', () => undefined);
  parent.on('close', () => {
    process.kill(process.pid, 'SIGTERM');
    setTimeout(() => process.exit(1), 5000).unref();
  });
  parent.resume();
  parent.unref();
  setInterval(() => parent.write('.'), 1000).unref();
}
