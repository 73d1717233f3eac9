import { chosenPlan } from '@/core/edition';
import { patchesBetween, type Media, type ObjectKey } from '@/core/plan';
import { Refusal } from '@/core/refusal';
import { uuidv7 } from '@/database';
import { filesOfVersions } from '../library';
import { demand, type Actor } from '../people';
import { draftWithin, editWithin, inTurn, takeTurn, type Edit, type EditResult } from '../plan';
import { seenChange } from './publish';
import { topEdition } from './planned-plans';

/**
 * Makes some objects of the draft as the last edition has them that is out or planned, with what that needs, as one act that can be undone. `basedOn` is the last
 * change that the person has seen in the docket. Throws 409 if the plan was changed since, if there isn't an edition yet, if nothing
 * of it is unpublished, and if a file's earlier version has been cleared away.
 */
export async function takeBack(
  actor: Actor,
  basedOn: number,
  chosen: readonly ObjectKey[],
  origin?: string,
): Promise<EditResult> {
  demand(actor, 'plan');
  return inTurn(actor.networkId, async (within) => {
    await takeTurn(actor.networkId, within);
    await seenChange(actor, basedOn, within);
    const newest = await topEdition(actor.networkId, within);
    if (!newest)
      throw new Refusal(
        409,
        'Nothing has been published yet, so there is no earlier state to return to. Undo or edit it instead.',
      );
    const { plan: draft } = await draftWithin(actor.networkId, within);
    const { plan } = chosenPlan(draft, newest.plan, chosen);
    const patches = patchesBetween(draft, plan);
    if (patches.length === 0) throw new Refusal(409, 'These changes are all published already.');
    const replaced = patches.flatMap((patch) => {
      if (patch.kind !== 'media' || !('set' in patch)) return [];
      const { sha256 } = patch.set;
      return sha256 ? [{ id: patch.id, sha256 }] : [];
    });
    const files = await filesOfVersions(actor.networkId, replaced, within);
    const gone = replaced.find(({ id }) => !files.has(id));
    if (gone)
      throw new Refusal(
        409,
        `The earlier version of “${nameOf(newest.plan.media, gone.id)}” is no longer kept. Leave it out of your choice, or publish the new version.`,
      );
    const edits = patches.map((patch): Edit => ({ ...patch, files: files.get(patch.id ?? '') }));
    return editWithin(actor, edits, within, { id: uuidv7(), origin });
  });
}

const nameOf = (media: readonly Media[], id: string) => media.find((one) => one.id === id)?.name ?? id;
