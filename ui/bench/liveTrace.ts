import { layOver, resampled } from '@/core';
import type { PredictedTrace } from '@/wire/benchJobs';
import type { Capture } from './capture';
import type { InputScale } from './scale';

/** Columns across the picture. */
const COLUMNS = 400;
/** Rate at which a running trace is brought in step with its prediction, samples a second. */
const STEP_RATE = 500;

export interface Ruler {
  readonly low: number;
  readonly high: number;
}

export interface Size {
  readonly width: number;
  readonly height: number;
}

/** A path through the least and greatest of even parts of a trace, in a picture of a size. */
export function pathOf(samples: ArrayLike<number>, scale: number, { low, high }: Ruler, size: Size): string {
  const count = Math.min(COLUMNS, samples.length);
  const y = (v: number): string => (size.height * (1 - (v * scale - low) / (high - low))).toFixed(1);
  let path = '';
  for (let i = 0; i < count; i++) {
    const [from, to] = [Math.floor((i * samples.length) / count), Math.floor(((i + 1) * samples.length) / count)];
    let [least, most] = [Infinity, -Infinity];
    for (let k = from; k < to; k++) {
      const v = samples[k] as number;
      [least, most] = [Math.min(least, v), Math.max(most, v)];
    }
    const x = ((i * size.width) / Math.max(1, count - 1)).toFixed(1);
    path += `${i === 0 ? 'M' : 'L'}${x} ${y(least)}${most > least ? `L${x} ${y(most)}` : ''}`;
  }
  return path;
}

/** Where in its prediction a running trace is: the sample that was heard at a time of the prediction. */
export interface InStep {
  readonly sample: number;
  readonly seconds: number;
}

/** Brings what was heard last in step with what repeats; null where nothing does. */
export function inStep(
  capture: Pick<Capture, 'last' | 'samples' | 'sampleRate'>,
  seconds: number,
  scale: InputScale,
  prediction: PredictedTrace,
): InStep | null {
  if (prediction.repeatsEvery === null) return null;
  const heard = capture.last(seconds);
  const at = capture.samples - heard.length;
  const recorded = resampled({ volts: heard, sampleRate: capture.sampleRate }, STEP_RATE).map((v) => v * scale.volts);
  const predicted = resampled(prediction, STEP_RATE);
  const found = layOver(
    { volts: predicted, sampleRate: STEP_RATE },
    { volts: recorded, sampleRate: STEP_RATE },
    { fixed: true },
  );
  return found && { sample: at, seconds: found.shift / STEP_RATE };
}

/** The prediction over a window that ends now, in step; by its period it goes on for ever. */
export function predictedNow(
  { volts, sampleRate, repeatsEvery }: PredictedTrace,
  step: InStep,
  capture: Pick<Capture, 'samples' | 'sampleRate'>,
  seconds: number,
): Float32Array {
  const now = step.seconds + (capture.samples - step.sample) / capture.sampleRate;
  const every = repeatsEvery ?? volts.length / sampleRate;
  return Float32Array.from({ length: COLUMNS }, (_, i) => {
    const t = now - seconds + (i * seconds) / (COLUMNS - 1);
    const within = ((t % every) + every) % every;
    return volts[Math.min(volts.length - 1, Math.round(within * sampleRate))] ?? 0;
  });
}
