import type { LoosePatch } from '@/core/plan';
import type { Result } from '@/core/refusal';
import type { EditResult } from '@/services/plan';

/** What one request takes, well under the server's limit of a megabyte. */
const MOST = { patches: 400, characters: 400_000 };

/** Patches in parts that one request takes each, in their order. */
export function inBatches(patches: readonly LoosePatch[], most = MOST): LoosePatch[][] {
  const batches: LoosePatch[][] = [];
  let room = 0;
  for (const patch of patches) {
    const { length } = JSON.stringify(patch);
    const last = batches.at(-1);
    if (last && last.length < most.patches && length <= room) last.push(patch);
    else {
      batches.push([patch]);
      room = most.characters;
    }
    room -= length;
  }
  return batches;
}

/**
 * Makes patches in parts that are one act, so that one step takes all of them back. `told` hears how many are made. Stops at the first
 * that is refused, or when `signal` says so. Returns how many were made, and the refusal where there was one.
 */
export async function editInBatches(
  patches: readonly LoosePatch[],
  edit: (part: readonly LoosePatch[], goesOn?: string) => Promise<Result<EditResult>>,
  told: (made: number) => void,
  signal: AbortSignal,
): Promise<{ readonly made: number; readonly refused: string | null }> {
  let made = 0;
  let act: string | undefined;
  for (const part of inBatches(patches)) {
    if (signal.aborted) break;
    const result = await edit(part, act);
    if (!result.ok) return { made, refused: result.message };
    act ??= result.value.act;
    made += part.length;
    told(made);
  }
  return { made, refused: null };
}
