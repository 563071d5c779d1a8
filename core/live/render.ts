import { buildGraph } from '../graph/graph';
import { idOf } from '../document/sockets';
import type { Cycle } from '../bounds/slow';
import { slowerOf, slowSeconds } from '../bounds/slow';
import { graphRepeats } from '../bounds/repeats';
import { WaveFile } from 'wavefile';
import type { Patch } from '../document/types';
import type { AssetLookup } from '../kinds/kind';
import { draw } from '../kinds/random';
import { LiveEngine } from './engine';
import type { Ears } from './ears';
import { Blocker, VOLT } from './listening';
import { graphAt } from './player';
import { RENDER } from './renderLimits';
import type { RenderBits } from './renderLimits';

export interface RenderOptions {
  /** Two ears, each after what blocks constant voltage; or sockets as they are, one channel each. */
  readonly of: Pick<Ears, 'left' | 'right' | 'gain'> | readonly string[];
  readonly seconds: number;
  readonly sampleRate: number;
  readonly bits: RenderBits;
  readonly asset?: AssetLookup;
  /** Called now and then with the progress, 0..1. */
  readonly progress?: (share: number) => void;
}

/** What came of a rendering. */
export interface Rendered {
  /** The file's bytes, one after the other. */
  readonly parts: readonly Uint8Array[];
  /** Samples beyond full scale, cut flat where the file holds whole numbers. */
  readonly over: number;
  /** Greatest sample, of full scale. */
  readonly peak: number;
}

/** Samples that are worked out together: more at once is faster than live. */
const BLOCK = 512;
/** Samples between two parts of the file. */
const PART = 64 * BLOCK;

/** The head of a WAV file whose samples follow; of its length it is told afterwards. */
function headOf(channels: number, sampleRate: number, bits: RenderBits, bytes: number): Uint8Array {
  const file = new WaveFile();
  file.fromScratch(channels, sampleRate, bits, channels === 1 ? [] : Array.from({ length: channels }, () => []));
  const head = file.toBuffer();
  const view = new DataView(head.buffer, head.byteOffset, head.byteLength);
  const at = head.byteLength - 4;
  view.setUint32(4, head.byteLength - 8 + bytes, true);
  view.setUint32(at, bytes, true);
  // A file of floats says how many samples there are.
  const text = String.fromCharCode(...head);
  const fact = text.indexOf('fact');
  if (fact > 0) view.setUint32(fact + 8, bytes / (channels * 4), true);
  return head;
}

/** Writes one sample, of full scale, as a file of these bits holds it. */
type Writer = (view: DataView, at: number, x: number, k: number) => void;

const held = (x: number, most: number): number => Math.min(most - 1, Math.max(-most, Math.round(x * most)));

const WRITERS: Readonly<Record<RenderBits, { readonly bytes: number; readonly write: Writer }>> = {
  // Dithered by two draws, so that what is quieter than a step does not become buzz.
  '16': {
    bytes: 2,
    write: (view, at, x, k) => view.setInt16(at, held(x + (draw(1, k) + draw(2, k)) / 2 / 32_768, 32_768), true),
  },
  '24': {
    bytes: 3,
    write(view, at, x) {
      const v = held(x, 8_388_608);
      view.setInt16(at, v & 0xffff, true);
      view.setInt8(at + 2, v >> 16);
    },
  },
  '32f': { bytes: 4, write: (view, at, x) => view.setFloat32(at, x, true) },
};

/**
 * Plays a patch into a WAV file, as fast as the machine can: a volt is 0.1 of full scale.
 *
 * @throws Error for lengths, rates and sockets that cannot be.
 */
export function render(patch: Patch, options: RenderOptions): Rendered {
  const { of, seconds, sampleRate, bits } = options;
  if (!(seconds > 0 && seconds <= RENDER.longest))
    throw new Error(`a rendering lasts over 0 s and at most ${RENDER.longest} s, got ${seconds}`);
  if (!(RENDER.rates as readonly number[]).includes(sampleRate))
    throw new Error(`a rendering's rate is one of ${RENDER.rates.join(', ')} Hz, got ${sampleRate}`);
  const graph = graphAt(patch, sampleRate);
  const ears = 'left' in of ? [of.left, of.right] : of;
  const gain = 'left' in of ? of.gain * VOLT : VOLT;
  const sockets = new Set(graph.modules.flatMap((m) => [...m.inputs, ...m.outputs].map((s) => s.socket)));
  for (const socket of ears) if (!sockets.has(socket)) throw new Error(`there is no socket ${socket}`);
  const engine = new LiveEngine(graph, { block: BLOCK, only: ears, ...(options.asset && { asset: options.asset }) });
  const blockers = ears.map(() => ('left' in of ? new Blocker(sampleRate) : null));
  const { bytes, write } = WRITERS[bits];
  const channels = ears.length;
  const samples = Math.round(seconds * sampleRate);
  const parts: Uint8Array[] = [headOf(channels, sampleRate, bits, samples * channels * bytes)];
  let [over, peak] = [0, 0];
  for (let k0 = 0; k0 < samples; k0 += PART) {
    const count = Math.min(PART, samples - k0);
    const part = new Uint8Array(count * channels * bytes);
    const view = new DataView(part.buffer);
    for (let from = 0; from < count; from += BLOCK) {
      const n = Math.min(BLOCK, count - from);
      engine.advance(n);
      for (let c = 0; c < channels; c++) {
        const trace = engine.buffer(ears[c] as string);
        const blocker = blockers[c];
        for (let i = 0; i < n; i++) {
          const v = (trace[i] as number) * gain;
          const x = blocker ? blocker.next(v) : v;
          const size = Math.abs(x);
          if (size > 1) over++;
          if (size > peak) peak = size;
          write(view, ((from + i) * channels + c) * bytes, x, k0 + from + i);
        }
      }
    }
    parts.push(part);
    options.progress?.((k0 + count) / samples);
  }
  return { parts, over, peak };
}

/** A patch is heard at least this long to tell how loud it is, and at most so long, seconds. */
const LEAST_HEARD = 4;
const MOST_HEARD = 60;

/** How long a patch is heard to tell how loud it is: whole cycles of what moves slower than sound, seconds. */
export function secondsHeard(patch: Patch, { left, right }: Pick<Ears, 'left' | 'right'>): number {
  const graph = buildGraph(patch);
  const known = graphRepeats(graph);
  const cycle = [left, right]
    .flatMap((socket) => known.get(idOf(socket))?.slow ?? [])
    .reduce<Cycle>((a, b) => slowerOf(a, b), 'none');
  const every = slowSeconds(cycle);
  return every === null ? LEAST_HEARD : Math.min(MOST_HEARD, every * Math.max(1, Math.ceil(LEAST_HEARD / every)));
}

/** How loud ears hear a patch in its first seconds, root mean square of full scale. */
export function loudnessOf(
  patch: Patch,
  { left, right, gain }: Pick<Ears, 'left' | 'right' | 'gain'>,
  seconds: number,
  asset?: AssetLookup,
): number {
  const sampleRate = 24_000;
  const only = [left, right];
  const engine = new LiveEngine(graphAt(patch, sampleRate), { block: BLOCK, only, ...(asset && { asset }) });
  const blockers = [new Blocker(sampleRate), new Blocker(sampleRate)] as const;
  const samples = Math.round(seconds * sampleRate);
  let squares = 0;
  for (let k = 0; k < samples; k += BLOCK) {
    const n = Math.min(BLOCK, samples - k);
    engine.advance(n);
    [left, right].forEach((socket, c) => {
      const trace = engine.buffer(socket);
      for (let i = 0; i < n; i++) squares += (blockers[c] as Blocker).next((trace[i] as number) * gain * VOLT) ** 2;
    });
  }
  return Math.sqrt(squares / (2 * samples));
}
