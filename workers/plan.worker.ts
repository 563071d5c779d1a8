import { expose } from 'comlink';
import { assignRack, patchMap, planChain, planEnds } from '../core';
import type { PlanWorker } from '../wire/core';

const worker: PlanWorker = {
  assign: (patch, rack) => Promise.resolve(assignRack(patch, rack)),
  ends: (request, rack) => Promise.resolve(planEnds(request, rack)),
  map: (patch, means) => Promise.resolve(patchMap(patch, { mean: (socket) => means.get(socket) })),
  plan: (request, rack) => Promise.resolve(planChain(request, rack)),
};

expose(worker);
