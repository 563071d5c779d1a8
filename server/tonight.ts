import type { Tonight } from '../wire/racks';
import { threads } from './beside/thread';
import type { Patches } from './patches';
import type { Racks } from './racks';

/** How many answers are kept, the last for each patch and rack. */
const MOST = 4000;
/** By patch and rack, of the revisions that they are of, and when those were saved: a backup may bring the same one. */
const known = new Map<string, { readonly of: string; readonly tonight: Tonight }>();

/** Of every patch in the list, whether it can be patched with a rack; what has not changed is not worked out again. */
export async function tonightOf(patches: Patches, racks: Racks, rackId: string): Promise<Tonight[]> {
  const { rack, revision: rackRevision, updatedAt: rackAt } = await racks.get(rackId);
  const body = JSON.stringify(rack);
  const told: Tonight[] = [];
  for (const { id, revision, updatedAt, fault } of await patches.list(false)) {
    if (fault !== null) continue;
    const of = `${revision} ${updatedAt} ${rackRevision} ${rackAt}`;
    const before = known.get(`${id} ${rackId}`);
    if (before?.of === of) {
      told.push(before.tonight);
      continue;
    }
    const stored = await patches.get(id);
    const { short, standIns } = await threads().painter.run('tonight', { body: stored.body, rack: body });
    const tonight = { patch: id, short, standIns };
    if (known.size >= MOST) known.clear();
    known.set(`${id} ${rackId}`, { of, tonight });
    told.push(tonight);
  }
  return told;
}
