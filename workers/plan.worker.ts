import { expose } from 'comlink';
import { assignRack, planChain } from '../core';
import type { PlanWorker } from '../wire/core';

const worker: PlanWorker = {
  assign: (patch, rack) => Promise.resolve(assignRack(patch, rack)),
  plan: (request, rack) => Promise.resolve(planChain(request, rack)),
};

expose(worker);
