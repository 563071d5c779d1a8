import { expose } from 'comlink';
import { solve, tolerance } from '../core';
import { Assets } from './assets';
import { take } from './held';
import { progressTeller } from './tellProgress';
import type { SolveWorker } from '../wire/core';

const assets = new Assets();
const tellProgress = progressTeller(250);

const worker: SolveWorker = {
  async solve(step, request) {
    const { patch } = take(step);
    const asset = await assets.of(patch);
    return { version: step.version, answer: solve(patch, { ...request, asset, progress: tellProgress }) };
  },
  tolerance(step, request) {
    const { patch } = take(step);
    return Promise.resolve({ version: step.version, report: tolerance(patch, { ...request, progress: tellProgress }) });
  },
};

expose(worker);
