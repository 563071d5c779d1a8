import { applyEdits, assignRack, parsePatch, parseRack } from '@/core';
import type { Fault, Rack } from '@/core';
import { api } from '@/ui/parts/api';
import { rackApi } from '@/ui/parts/rackApi';
import { benchJob } from '@/ui/parts/workerJob';
import type { AtRack } from '@/wire/benchJobs';

async function rackOf(id: string): Promise<Rack | null> {
  const read = id === '' ? null : parseRack((await rackApi.get(id)).rack);
  return read?.ok ? read.value : null;
}

/** A stored patch as it stands on a rack. @throws Error where it cannot be read. */
async function standingAt(patchId: string, rackId: string): Promise<AtRack> {
  const [stored, rack] = await Promise.all([api.get(patchId), rackOf(rackId)]);
  const read = parsePatch(stored.patch);
  if (!read.ok) throw new Error('The patch could not be read.');
  const edits = rack ? assignRack(read.value, rack).assigned.flatMap((a) => a.edits) : [];
  return { patch: applyEdits(read.value, edits), rack, asMeasured: false };
}

/** A fault for a simulated rack that somebody who measures can see. @throws Error where none was found. */
export async function surpriseFor(patchId: string, rackId: string, seed: number): Promise<Fault> {
  const of = await standingAt(patchId, rackId);
  const { fault } = await benchJob((worker) => worker.surprise(of, seed)).done;
  if (!fault) throw new Error('No fault in this patch would show on a meter. Choose another patch.');
  return fault;
}

/** Every fault that can be put into a patch, in words. */
export async function faultsFor(patchId: string, rackId: string) {
  const of = await standingAt(patchId, rackId);
  return benchJob((worker) => worker.faults(of)).done;
}
