import { forecastAt, holds, isPresented, stepFrom, withStep, type ProgramDocument, type Stepped } from '@/core/playing';
import { wholeProgram, type Timeline } from './conductor';

/** Holds what a person at the screen has stepped to: it is seen in place of what the forecast gives, until it goes on by the clock. */
export class Steps {
  private stepped: { readonly loops: ProgramDocument['loops']; readonly to: Stepped } | null = null;

  constructor(
    private readonly now: () => number,
    /** Another item is to be seen. */
    private readonly changed: () => void,
  ) {}

  /** A program's forecast with what was stepped to. A new program has other items, so it begins by the clock. */
  readonly timeline: Timeline = (program, from, to) => {
    const found = wholeProgram(program, from, to);
    return this.stepped?.loops === program.loops ? withStep(program, found, this.stepped.to) : found;
  };

  /** Steps to the next item, or back. `byPress`: only where each item waits for that. Returns whether there was anything to step. */
  step(program: ProgramDocument | null, by: 1 | -1, { byPress = false } = {}): boolean {
    if (!program) return false;
    const at = Math.round(this.now());
    const shown = forecastAt(program, at);
    if (byPress && !isPresented(program, shown.segment.loop)) return false;
    const before = this.stepped?.loops === program.loops ? this.stepped.to : null;
    const to = stepFrom(program, shown, before, at, by);
    if (!to) return false;
    this.stepped = { loops: program.loops, to };
    this.changed();
    return true;
  }

  /** Whether something else than the forecast's is seen now. */
  isOn(program: ProgramDocument | null): boolean {
    const { stepped } = this;
    if (!program || stepped?.loops !== program.loops) return false;
    const at = Math.round(this.now());
    return holds(stepped.to, forecastAt(program, at).segment, at);
  }
}
