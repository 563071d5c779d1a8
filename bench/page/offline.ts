import { LiveEngine } from '@/core/live/engine';
import { graphAt } from '@/core/live/player';
import { patchOf } from '@/core/testing/patch';

/** The same chain by Fenvo's engine and by the browser's own offline audio graph; runs in a page. */

const RATE = 48_000;
const AMOUNT = 0.9;
const LIFT = 0.2;
const GAIN = 1.2;
const CLIP = 5;
const SECONDS = 0.001;
/** One second, for both to have forgotten how they began. */
const SETTLED = RATE;

export interface OfflineFigures {
  readonly stages: number;
  readonly seconds: number;
  /** The most that the two are apart once both have settled, volts. */
  readonly apart: number;
  readonly engineMs: number;
  readonly browserMs: number;
}

/** An LFO at 220 Hz through groups of scale and offset, hard clip, one-pole lag and attenuator. */
function patchWith(groups: number) {
  const parts: Record<string, readonly [string, Record<string, number | string>]> = {
    source: ['lfo', { shape: 'sine', rateHz: 220, lowVolts: -4, highVolts: 4 }],
  };
  const cables: string[] = [];
  let at = 'source.out';
  const add = (id: string, kind: string, params: Record<string, number | string>): void => {
    parts[id] = [kind, params];
    cables.push(`${at} > ${id}.in`);
    at = `${id}.out`;
  };
  for (let g = 0; g < groups; g++) {
    add(`lift${g}`, 'offset', { amount: AMOUNT, volts: LIFT });
    add(`clip${g}`, 'shaper', { gain: GAIN, clipVolts: CLIP });
    add(`lag${g}`, 'slew', { law: 'rc', rise: SECONDS, fall: SECONDS });
    add(`level${g}`, 'attenuator', { amount: AMOUNT });
  }
  return { patch: patchOf(parts, cables, { loading: 'ideal' }), last: at };
}

function byEngine(
  groups: number,
  length: number,
): { source: Float32Array<ArrayBuffer>; out: Float32Array; ms: number } {
  const { patch, last } = patchWith(groups);
  const samples = (keep: boolean) => {
    const engine = new LiveEngine(graphAt(patch, RATE));
    const [source, out] = [new Float32Array(length), new Float32Array(length)];
    for (let k = 0; k < length; k += engine.block) {
      const count = Math.min(engine.block, length - k);
      engine.advance(count);
      out.set(engine.buffer(last).subarray(0, count), k);
      if (keep) source.set(engine.buffer('source.out').subarray(0, count), k);
    }
    return { source, out };
  };
  const { source } = samples(true);
  const began = performance.now();
  const { out } = samples(false);
  return { source, out, ms: performance.now() - began };
}

async function byBrowser(
  groups: number,
  source: Float32Array<ArrayBuffer>,
): Promise<{ out: Float32Array; ms: number }> {
  const context = new OfflineAudioContext(1, source.length, RATE);
  const buffer = context.createBuffer(1, source.length, RATE);
  buffer.copyToChannel(source, 0);
  const play = context.createBufferSource();
  play.buffer = buffer;
  let at: AudioNode = play;
  const gain = (value: number): GainNode => new GainNode(context, { gain: value });
  const through = (node: AudioNode): void => void (at = at.connect(node));
  const share = -Math.expm1(-5 / RATE / SECONDS);
  for (let g = 0; g < groups; g++) {
    through(gain(AMOUNT));
    const sum = gain(1);
    const lift = new ConstantSourceNode(context, { offset: LIFT });
    lift.connect(sum);
    lift.start();
    through(sum);
    through(gain(GAIN / CLIP));
    through(new WaveShaperNode(context, { curve: [-1, 0, 1] }));
    through(gain(CLIP));
    through(new IIRFilterNode(context, { feedforward: [share], feedback: [1, share - 1] }));
    through(gain(AMOUNT));
  }
  through(context.destination);
  play.start();
  const began = performance.now();
  const rendered = await context.startRendering();
  return { out: rendered.getChannelData(0), ms: performance.now() - began };
}

/** Both, compared first. */
export async function compared(groups: number, seconds: number): Promise<OfflineFigures> {
  const engine = byEngine(groups, seconds * RATE);
  const browser = await byBrowser(groups, engine.source);
  let apart = 0;
  for (let k = SETTLED; k < engine.out.length; k++)
    apart = Math.max(apart, Math.abs((engine.out[k] as number) - (browser.out[k] as number)));
  return { stages: 4 * groups, seconds, apart, engineMs: engine.ms, browserMs: browser.ms };
}
