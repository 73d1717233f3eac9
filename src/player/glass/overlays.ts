import type { ProgramDocument } from '@/core/playing';
import { Conductor } from './conductor';
import { drawWithin, overlayTimeline, type Around } from './scene';
import type { Stage } from './stage';

/** What is drawn above whatever plays: a stage for each booking of the program that says so, the one that goes ahead uppermost. */
export class Overlays {
  private shown: {
    readonly id: string;
    readonly root: HTMLElement;
    readonly stage: Stage;
    readonly conductor: Conductor;
  }[] = [];

  constructor(
    private readonly root: HTMLElement,
    private readonly around: Around,
  ) {}

  play(program: ProgramDocument | null): void {
    const overlays = [...(program?.overlays ?? [])].sort((a, b) => a.priority - b.priority || a.created - b.created);
    const wanted = new Set(overlays.map(({ id }) => id));
    for (const one of this.shown.filter(({ id }) => !wanted.has(id))) {
      one.conductor.stop();
      one.stage.clear();
      one.root.remove();
    }
    const known = new Map(this.shown.map((one) => [one.id, one]));
    this.shown = overlays.map(({ id }) => known.get(id) ?? this.add(id));
    for (const { root, conductor } of this.shown) {
      this.root.append(root);
      conductor.play(program);
    }
  }

  private add(id: string) {
    const root = document.createElement('div');
    root.className = 'overlay';
    const stage = this.around.stage(root);
    const { now, report } = this.around;
    const draw = drawWithin(this.around);
    const conductor = new Conductor(
      stage,
      now,
      () => undefined,
      report,
      undefined,
      undefined,
      undefined,
      draw,
      overlayTimeline(id),
    );
    return { id, root, stage, conductor };
  }
}
