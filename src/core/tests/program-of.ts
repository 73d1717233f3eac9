import { compileEdition, type ProgramDocument } from '../edition';
import type { Plan } from '../plan';
import { orThrow } from '../refusal';

/** A screen's program as an edition has it: its hash, its canonical text, and what the text says. Throws if the plan doesn't compile. */
export function programOf(plan: Plan, screen: string): { hash: string; text: string; document: ProgramDocument } {
  const { screens, programs } = orThrow(compileEdition(plan));
  const hash = screens.get(screen) ?? '';
  const text = programs.get(hash) ?? '';
  return { hash, text, document: JSON.parse(text) as ProgramDocument };
}
