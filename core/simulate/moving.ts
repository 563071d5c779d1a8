import { isLoaded } from '../graph/loading';
import { isLinearIn, tracksOf } from '../graph/tracks';
import type { Track } from '../graph/tracks';
import type { Kernel } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import { kernelOf } from './kernels';
import type { Slot, Shared } from './kernels';
import type { Memory } from './memory';
import { middleOf, stepAt } from './steps';

/** The kernel of a module with the hands that turn its knobs. */
export function moduleKernel(shared: Shared, place: Slot, params: ParamValues, memory: Memory): Kernel {
  const { sampleRate } = shared.graph;
  const tracks = tracksOf(place.module, sampleRate);
  if (tracks.length === 0 && !bearsMovingLoads(shared, place)) return kernelOf(shared, place, params, memory);
  return movingKernel(shared, place, params, tracks, memory, shared.loads?.piece ?? stepAt(sampleRate));
}

/** Whether a passive part hangs on loads that move. */
const bearsMovingLoads = ({ loads }: Shared, { module }: Slot): boolean => loads !== null && isLoaded(module);

/** More corners than this are not worth it: they are moved in steps. */
const MOST_EXACT = 3;

/**
 * The kernel of a module whose knobs move. Where its outputs are linear in them, exactly, sample by sample; otherwise
 * in steps of `step` samples, each at the knobs' values in its middle.
 */
export function movingKernel(
  shared: Shared,
  place: Slot,
  params: ParamValues,
  tracks: readonly Track[],
  memory: Memory,
  step: number,
): Kernel {
  return tracks.length <= MOST_EXACT && !bearsMovingLoads(shared, place) && isLinearIn(place.module, tracks)
    ? exactly(shared, place, params, tracks, memory)
    : inSteps(shared, place, params, tracks, memory, step);
}

/** The outputs at every corner of what the knobs take, weighed by where they stand. */
function exactly(shared: Shared, place: Slot, params: ParamValues, tracks: readonly Track[], memory: Memory): Kernel {
  const negated = place.module.kind.negated ?? {};
  const own = memory.begin();
  const outputs = place.outputs.filter((_, i) => !negated[place.module.outputs[i]?.name ?? '']);
  const sums = outputs.map(() => own.scratch());
  const moving = tracks.filter((t) => t.hi > t.lo);
  const still = Object.fromEntries(tracks.map((t) => [t.param, t.lo]));
  const corners = Array.from({ length: 2 ** moving.length }, (_, bits) => {
    const at = moving.map((t, j) => [t.param, (bits >> j) & 1 ? t.hi : t.lo] as const);
    const there = { ...params, ...still, ...Object.fromEntries(at) };
    return { bits, kernel: kernelOf(shared, place, there, memory.beside(bits), true) };
  });
  return (from, to, k0) => {
    for (const sum of sums) sum.fill(0, from, to);
    for (const { bits, kernel } of corners) {
      kernel(from, to, k0);
      for (let i = from; i < to; i++) {
        let weight = 1;
        for (let j = 0; j < moving.length; j++) {
          const { lo, hi, at } = moving[j] as Track;
          const share = (at(k0 + i) - lo) / (hi - lo);
          weight *= (bits >> j) & 1 ? share : 1 - share;
        }
        for (let o = 0; o < sums.length; o++) {
          const sum = sums[o] as Float64Array;
          sum[i] = (sum[i] as number) + weight * ((outputs[o] as Float64Array)[i] as number);
        }
      }
    }
    for (let o = 0; o < sums.length; o++)
      (outputs[o] as Float64Array).set((sums[o] as Float64Array).subarray(from, to), from);
  };
}

/** A hand that goes this far within a step, of all its way, is followed sample by sample. */
const STEEP = 0.005;

const isSteep = (tracks: readonly Track[], from: number, to: number): boolean =>
  tracks.some((t) => Math.abs(t.at(to) - t.at(from)) > STEEP * (t.hi - t.lo));

function inSteps(
  shared: Shared,
  place: Slot,
  params: ParamValues,
  tracks: readonly Track[],
  memory: Memory,
  step: number,
): Kernel {
  const make = (middle: number): Kernel => {
    const now = Object.fromEntries(tracks.map((t) => [t.param, t.at(middle)]));
    const loads = bearsMovingLoads(shared, place) ? shared.loads : null;
    const there = loads ? { ...place, module: { ...place.module, loading: loads.of(place.module.id, middle) } } : place;
    return kernelOf(shared, there, { ...params, ...now }, memory, true);
  };
  return stepped(step, make, (from, to) => isSteep(tracks, from, to));
}

/**
 * Kernels in turns, each for `step` samples.
 *
 * @param make the one of a step, by the sample in its middle. @param isFine whether there is one for each sample of a
 * step, told by its first sample and the first behind it.
 */
export function stepped(
  step: number,
  make: (middle: number) => Kernel,
  isFine: (from: number, to: number) => boolean = () => false,
): Kernel {
  // Steps begin at multiples of their length, so that the block's size changes nothing.
  let known = -1;
  let fine = false;
  let kernel: Kernel = () => undefined;
  return (from, to, k0) => {
    for (let i = from; i < to;) {
      const n = Math.floor((k0 + i) / step);
      const end = Math.min(to, (n + 1) * step - k0);
      if (n !== known) {
        fine = step > 1 && isFine(n * step, (n + 1) * step);
        if (!fine) kernel = make(middleOf(n, step));
        known = n;
      }
      if (fine) for (let j = i; j < end; j++) make(k0 + j)(j, j + 1, k0);
      else kernel(i, end, k0);
      i = end;
    }
  };
}
