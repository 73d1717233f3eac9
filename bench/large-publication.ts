import { planFile } from '@/core/plan';
import { rows } from '@/database';
import { docket, publishEdition } from '@/services/editions';
import type { Actor } from '@/services/people';
import { createNetwork, edit, importPlan, lastChange } from '@/services/plan';
import { print, timed } from './figure';
import { generatedNetwork } from './generated-network';

const SCREENS = 5000;

/** From the draft of 5 000 screens and 500 bookings to a committed edition: the first, and one with a booking changed; beside counting its docket. */
export async function largePublicationBench(person: Actor): Promise<void> {
  const networkId = await createNetwork({ name: 'Large', slug: `large-${Date.now()}` });
  const actor: Actor = { ...person, networkId };
  await importPlan(actor, planFile(generatedNetwork(SCREENS)));
  await rows(
    `INSERT INTO files (sha256, bytes, type) SELECT encode(sha256(slug::bytea), 'hex'), 1000, 'image/png'
     FROM plan_objects WHERE network_id = $1 AND kind = 'media' ON CONFLICT DO NOTHING`,
    [networkId],
  );
  await rows(
    `UPDATE plan_objects SET document = document || jsonb_build_object('sha256', encode(sha256(slug::bytea), 'hex'), 'type', 'image/png')
     WHERE network_id = $1 AND kind = 'media'`,
    [networkId],
  );
  const publishing = async () => {
    const seen = await lastChange(networkId);
    // Who publishes has the docket before them: the process that publishes has counted it.
    const counting = await timed(() => docket(actor));
    return { counting, value: await timed(() => publishEdition(actor, seen)) };
  };
  const first = await publishing();
  await edit(actor, [{ kind: 'booking', id: 'b7', set: { priority: 5, when: { windows: [['06:00', '09:00']] } } }]);
  const second = await publishing();
  for (const [bench, { value, counting }] of [
    ['publish/edition-5000', first],
    ['publish/edition-5000-one-booking', second],
  ] as const)
    print({
      ...{ bench, value, unit: 's' },
      reference: { what: 'counting its docket, before', value: counting },
      ...{ goal: 'value < 3', met: value < 3 },
    });
}
