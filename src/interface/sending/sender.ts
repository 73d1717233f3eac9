import { createStore } from 'zustand/vanilla';
import { speedOf, withMark } from './rate';

/** Files on their way from this page into the library: some at once, the others in line, each with its own progress. */

/** How a file stands: `stalled` goes on by itself when the line is back, `refused` does not, `lost` must be chosen again. */
type Standing = 'waiting' | 'sending' | 'stalled' | 'paused' | 'refused' | 'lost' | 'in';

export interface FileOnItsWay {
  readonly key: string;
  readonly name: string;
  readonly bytes: number;
  /** Bytes that the server has. */
  readonly sent: number;
  readonly standing: Standing;
  /** Why it was refused, or what became of it. */
  readonly said: string | null;
  /** The id of the media file whose new version it is. */
  readonly replaces?: string | undefined;
}

/** What the page knows of what it sends. */
export interface SendingState {
  /** What the files of one go are called together; null where there are none. */
  readonly batch: string | null;
  readonly files: readonly FileOnItsWay[];
  /** Bytes a second, of all together; null while unknown. */
  readonly speed: number | null;
}

/** What the page shows of a file while it is sent. */
export interface Listener {
  progress(sent: number): void;
  /** The line is broken: it is tried again until it is back. */
  stalled(): void;
  refused(said: string): void;
  /** `known` is the name of the file that the library has of the same bytes. */
  done(known: string | null): void;
}

/** One file's way: it may be begun, stopped and begun again. */
export interface Courier {
  start(): void;
  stop(): void;
  /** Ends it for good: what the server has of it goes. */
  cancel(): void;
}

export interface Parcel {
  readonly key: string;
  readonly batch: string;
  readonly file: File;
  /** The id of the media file whose new version it is. */
  readonly replaces?: string | undefined;
}

/** Files that a page before this one was sending, as the browser remembers them. */
export interface Memory {
  put(parcel: Parcel): void;
  drop(key: string): void;
}

const AT_ONCE = 3;
const TOLD_EVERY_MS = 250;

const isUnderWay = ({ standing }: FileOnItsWay) => standing === 'sending' || standing === 'stalled';
/** Whether a file still needs anything, by itself or from a person. */
export const isOpen = ({ standing }: FileOnItsWay) =>
  standing !== 'in' && standing !== 'refused' && standing !== 'lost';

export class Sender {
  readonly state = createStore<SendingState>(() => ({ batch: null, files: [], speed: null }));
  private readonly parcels = new Map<string, Parcel>();
  private readonly couriers = new Map<string, Courier>();
  private readonly sent = new Map<string, number>();
  private marks: ReturnType<typeof withMark> = [];
  private timer: ReturnType<typeof setInterval> | null = null;

  constructor(
    private readonly courier: (parcel: Parcel, listener: Listener) => Courier,
    private readonly memory: Memory,
    private readonly id: () => string = () => crypto.randomUUID(),
    private readonly now: () => number = () => performance.now(),
  ) {}

  /** Sends files, with those that are still here as one batch; or one as the new version of the media file that `replaces` names. */
  add(files: readonly File[], replaces?: string): void {
    const batch = this.state.getState().batch ?? this.id();
    // What is chosen again was lost, and goes on where it stood.
    const isChosen = ({ standing, name, bytes }: FileOnItsWay) =>
      standing === 'lost' && files.some((file) => file.name === name && file.size === bytes);
    const again = this.state.getState().files.filter(isChosen);
    const parcels = files.map((file) => {
      const known = again.find(({ name, bytes }) => file.name === name && file.size === bytes);
      return { key: this.id(), batch, file, replaces: replaces ?? known?.replaces };
    });
    for (const parcel of parcels) this.memory.put(parcel);
    for (const { key } of again) this.dismiss(key);
    this.take(parcels, batch);
  }

  /** Continues what an earlier page was sending: without its file, it waits to be chosen again. */
  goOn(
    parcels: readonly Parcel[],
    lost: readonly Omit<FileOnItsWay, 'sent' | 'standing' | 'said'>[],
    batch: string,
  ): void {
    this.take(parcels, this.state.getState().batch ?? batch);
    this.set(({ files }) => [
      ...files,
      ...lost.map((one) => ({ ...one, sent: 0, standing: 'lost' as const, said: null })),
    ]);
  }

  private take(parcels: readonly Parcel[], batch: string): void {
    for (const parcel of parcels) this.parcels.set(parcel.key, parcel);
    this.state.setState(({ files }) => ({
      batch,
      files: [
        ...files,
        ...parcels.map(({ key, file, replaces }) => ({
          ...{ key, name: file.name, bytes: file.size, sent: 0 },
          ...{ standing: 'waiting' as const, said: null, replaces },
        })),
      ],
    }));
    this.pump();
  }

  pause(key: string): void {
    this.couriers.get(key)?.stop();
    this.update(key, { standing: 'paused' });
    this.pump();
  }

  /** Continues paused files, and tries refused ones again. */
  resume(key: string): void {
    this.update(key, { standing: 'waiting', said: null });
    this.pump();
  }

  pauseAll(): void {
    for (const one of this.state.getState().files.filter(isOpen)) {
      this.couriers.get(one.key)?.stop();
      this.update(one.key, { standing: 'paused' });
    }
  }

  resumeAll(): void {
    for (const one of this.state.getState().files)
      if (one.standing === 'paused') this.update(one.key, { standing: 'waiting' });
    this.pump();
  }

  /** Takes a file off the list, and what the server has of it away. */
  dismiss(key: string): void {
    this.couriers.get(key)?.cancel();
    this.forget(key);
    this.set(({ files }) => files.filter((one) => one.key !== key));
    this.pump();
  }

  cancelAll(): void {
    for (const { key } of this.state.getState().files.filter(isOpen)) this.dismiss(key);
  }

  /** Ends the batch: what is open stays. */
  close(): void {
    this.set(({ files }) => files.filter(isOpen));
    if (this.state.getState().files.length === 0) this.state.setState({ batch: null, speed: null });
  }

  /** What waits for the line tries at once: it may be back. */
  wake(): void {
    for (const one of this.state.getState().files.filter(({ standing }) => standing === 'stalled')) {
      this.couriers.get(one.key)?.stop();
      this.couriers.get(one.key)?.start();
    }
  }

  private pump(): void {
    const { files } = this.state.getState();
    const free = AT_ONCE - files.filter(isUnderWay).length;
    for (const { key } of files.filter(({ standing }) => standing === 'waiting').slice(0, Math.max(0, free)))
      this.start(key);
    const isBusy = this.state.getState().files.some(isUnderWay);
    if (isBusy && !this.timer) this.timer = setInterval(() => this.tell(), TOLD_EVERY_MS);
    if (!isBusy && this.timer) {
      clearInterval(this.timer);
      this.timer = null;
      this.marks = [];
      this.state.setState({ speed: null });
    }
  }

  private start(key: string): void {
    const parcel = this.parcels.get(key);
    if (!parcel) return;
    let courier = this.couriers.get(key);
    if (!courier) {
      courier = this.courier(parcel, {
        progress: (sent) => {
          this.sent.set(key, sent);
          if (this.fileOf(key)?.standing === 'stalled') this.update(key, { standing: 'sending' });
        },
        stalled: () => this.update(key, { standing: 'stalled' }),
        refused: (said) => {
          // After a reload, files that can't be sent aren't asked for again.
          this.memory.drop(key);
          this.update(key, { standing: 'refused', said });
          this.pump();
        },
        done: (known) => {
          this.forget(key);
          const said = known === null ? null : `The library has this file already, as “${known}”.`;
          this.update(key, { standing: 'in', sent: parcel.file.size, said });
          this.pump();
        },
      });
      this.couriers.set(key, courier);
    }
    this.update(key, { standing: 'sending' });
    courier.start();
  }

  /** Brings the numbers up to date: a few times a second, however many pieces come. */
  private tell(): void {
    this.set(({ files }) =>
      files.map((one) => {
        const sent = this.sent.get(one.key);
        return sent === undefined || sent === one.sent ? one : { ...one, sent };
      }),
    );
    const done = this.state.getState().files.reduce((sum, { sent }) => sum + sent, 0);
    this.marks = withMark(this.marks, { at: this.now(), done });
    this.state.setState({ speed: speedOf(this.marks) });
  }

  private forget(key: string): void {
    this.memory.drop(key);
    this.couriers.delete(key);
    this.parcels.delete(key);
    this.sent.delete(key);
  }

  private fileOf(key: string): FileOnItsWay | undefined {
    return this.state.getState().files.find((one) => one.key === key);
  }

  private update(key: string, values: Partial<FileOnItsWay>): void {
    this.set(({ files }) => files.map((one) => (one.key === key ? { ...one, ...values } : one)));
  }

  private set(files: (state: SendingState) => readonly FileOnItsWay[]): void {
    this.state.setState((state) => ({ files: files(state) }));
  }
}
