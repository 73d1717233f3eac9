import { LRUCache } from 'lru-cache';
import { Op, type Transaction } from 'sequelize';
import { currentPlan, type Plan } from '@/core/plan';
import { EditionRow, rows } from '@/database';

/** Editions as they lie in the database: a plan that never changes, and the program of each screen. */

/** An edition that is out, or planned, as a whole. Its plan is shared between callers: they may not change it. */
export interface Frozen {
  readonly id: string;
  readonly networkId: string;
  /** All changes up to this one are in it. */
  readonly lastChange: number;
  readonly again: number | null;
  readonly whole: boolean;
  readonly plan: Plan;
}

/** One that is out. */
export interface WholeEdition extends Frozen {
  readonly number: number;
  readonly publishedAt: Date;
}

/** Whether an edition equals the draft as it was at a change. */
export const isDraftAt = ({ lastChange, again, whole }: Frozen, change: number) =>
  whole && again === null && lastChange === change;

/** Plans of editions by the edition's id: an edition never changes. */
const remembered = new LRUCache<string, Plan>({ max: 16 });

/** Remembers the plan of an edition that was just written. */
export const remember = (id: string, plan: Plan): void => void remembered.set(id, plan);

/** What was published: no edition that is planned. */
export const isOut = { number: { [Op.not]: null } };

/** The newest edition of a network, or null before the first. */
export async function newestEdition(networkId: string, within?: Transaction): Promise<WholeEdition | null> {
  const row = await EditionRow.findOne({
    where: { networkId, ...isOut },
    attributes: { exclude: ['plan'] },
    order: [['number', 'DESC']],
    transaction: within,
  });
  return row && { ...(await frozen(row, within)), number: row.number ?? 0, publishedAt: row.publishedAt };
}

/** The plan of the newest edition; null before the first. */
export const newestPlan = async (networkId: string): Promise<Plan | null> =>
  (await newestEdition(networkId))?.plan ?? null;

/** An edition's row, which may lack its plan, with its plan as this program reads it. */
export async function frozen(row: EditionRow, within?: Transaction): Promise<Frozen> {
  const { id, networkId, lastChange: change, again, whole } = row;
  let plan = remembered.get(id);
  if (!plan) {
    const found = await EditionRow.findByPk(id, {
      attributes: ['plan', 'format'],
      transaction: within,
      rejectOnEmpty: true,
    });
    remembered.set(id, (plan = currentPlan(found.plan, found.format)));
  }
  return { id, networkId, lastChange: change, again, whole, plan };
}

/** The number of a network's newest edition; 0 before the first. */
export async function newestNumber(networkId: string): Promise<number> {
  return (await EditionRow.max<number | null, EditionRow>('number', { where: { networkId } })) ?? 0;
}

/** Program hashes of an edition by screen id. */
export async function programsOf(id: string, within?: Transaction): Promise<Map<string, string>> {
  const found = await rows<{ screen: string; hash: string }>(
    'SELECT screen, hash FROM edition_screens WHERE edition_id = $1',
    [id],
    within,
  );
  return new Map(found.map((row) => [row.screen, row.hash]));
}
