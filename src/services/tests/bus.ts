import { subscribe } from '@/database';

/** Waits, before the tests of a file, until this process hears what is published: what comes before its line is open is missed. */
export function useBus(): void {
  beforeAll(
    () =>
      new Promise<void>((done) => {
        // The first line of a process tells its listeners that they may have missed something.
        const stop = subscribe((message) => {
          if (message.kind !== 'resync') return;
          stop();
          done();
        });
      }),
  );
}
