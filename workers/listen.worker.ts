import { expose } from 'comlink';
import { loudnessOver } from '../core/answers/loudnessVariants';
import { loudnessOf, render, secondsHeard } from '../core/live/render';
import type { ListenWorker } from '../wire/listen';
import { Assets } from './assets';
import { progressTeller } from './tellProgress';

const assets = new Assets();
const tellProgress = progressTeller(100);
const worker: ListenWorker = {
  async loudness(sides) {
    const found: number[] = [];
    for (const { patch, ears } of sides)
      found.push(loudnessOf(patch, ears, secondsHeard(patch, ears), await assets.of(patch)));
    return found;
  },
  loudnessVariants: async (patch, id) => loudnessOver(patch, id, await assets.of(patch)),
  async render({ patch, of, ...options }) {
    const asset = await assets.of(patch);
    const { parts, ...told } = render(patch, { of, ...options, asset, progress: tellProgress });
    return { file: new Blob(parts as Uint8Array<ArrayBuffer>[], { type: 'audio/wav' }), ...told };
  },
};

expose(worker);
