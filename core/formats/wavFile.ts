import { WaveFile } from 'wavefile';
import { ASSET } from '../document/types';
import type { Result } from '../document/types';
import type { FileTraces } from './recording';

/**
 * WAV files. The package `wavefile` holds a file several times over as doubles, 2.7 GB for one of 120 MB, so the chunks
 * are found and the samples read here, straight into floats; its tables serve for the companded laws.
 */

interface Format {
  readonly tag: number;
  readonly channels: number;
  readonly sampleRate: number;
  readonly bits: number;
  readonly block: number;
}

interface Chunks {
  readonly format: Format;
  readonly start: number;
  readonly bytes: number;
  /** What the file says that its samples take, bytes. */
  readonly announced: number;
}

const PCM = 1;
const FLOAT = 3;
const A_LAW = 6;
const MU_LAW = 7;
const EXTENSIBLE = 0xfffe;
/** Other codes that a file may name, by what they are called. */
const NAMES: Readonly<Record<number, string>> = {
  2: 'ADPCM',
  0x11: 'IMA ADPCM',
  0x31: 'GSM',
  0x50: 'MPEG',
  0x55: 'MP3',
};

const textAt = (view: DataView, at: number): string =>
  String.fromCharCode(...[0, 1, 2, 3].map((i) => view.getUint8(at + i)));

function formatAt(view: DataView, at: number, size: number): Format {
  const tag = view.getUint16(at, true);
  // The real code of an extensible format is the beginning of its long name.
  const real = tag === EXTENSIBLE && size >= 26 ? view.getUint16(at + 24, true) : tag;
  return {
    tag: real,
    channels: view.getUint16(at + 2, true),
    sampleRate: view.getUint32(at + 4, true),
    block: view.getUint16(at + 12, true),
    bits: view.getUint16(at + 14, true),
  };
}

function chunksOf(view: DataView): Chunks | string {
  if (view.byteLength < 12 || textAt(view, 0) !== 'RIFF' || textAt(view, 8) !== 'WAVE') return 'Not a WAV file.';
  let format: Format | null = null;
  for (let at = 12; at + 8 <= view.byteLength;) {
    const [name, size] = [textAt(view, at), view.getUint32(at + 4, true)];
    const body = at + 8;
    if (name === 'fmt ' && size >= 16 && body + size <= view.byteLength) format = formatAt(view, body, size);
    if (name === 'data') {
      if (!format) return 'The WAV header is damaged: data comes before the format.';
      return { format, start: body, bytes: Math.min(size, view.byteLength - body), announced: size };
    }
    at = body + size + (size % 2);
  }
  return 'It holds no samples.';
}

/** The 256 values of a companded byte, full scale as 1. */
function compandedTable(law: 'A-law' | 'µ-law'): Float32Array {
  const file = new WaveFile();
  file.fromScratch(
    1,
    8000,
    law === 'A-law' ? '8a' : '8m',
    Uint8Array.from({ length: 256 }, (_, i) => i),
  );
  if (law === 'A-law') file.fromALaw();
  else file.fromMuLaw();
  const samples = file.getSamples(false, Float64Array) as unknown as Float64Array;
  return Float32Array.from(samples, (v) => v / 2 ** 15);
}

type ReadSample = (at: number) => number;

/** How one sample is read, full scale as 1; or what of it cannot be. */
function readerOf(view: DataView, { tag, bits }: Format): ReadSample | string {
  if (tag === FLOAT && bits === 32) return (at) => view.getFloat32(at, true);
  if (tag === FLOAT && bits === 64) return (at) => view.getFloat64(at, true);
  if (tag === PCM && bits === 8) return (at) => (view.getUint8(at) - 128) / 128;
  if (tag === PCM && bits === 16) return (at) => view.getInt16(at, true) / 2 ** 15;
  if (tag === PCM && bits === 24) {
    return (at) => (view.getInt8(at + 2) * 65_536 + view.getUint16(at, true)) / 2 ** 23;
  }
  if (tag === PCM && bits === 32) return (at) => view.getInt32(at, true) / 2 ** 31;
  if ((tag === A_LAW || tag === MU_LAW) && bits === 8) {
    const table = compandedTable(tag === A_LAW ? 'A-law' : 'µ-law');
    return (at) => table[view.getUint8(at)] as number;
  }
  const name = NAMES[tag] ?? (tag === PCM || tag === FLOAT ? `${bits} bits` : `code ${tag}`);
  return `Unsupported encoding: ${name}. Use PCM (8 to 32 bit), float, A-law or µ-law.`;
}

export interface WavTraces extends FileTraces {
  /** What is to be said of it: that it ends early, or was cut. */
  readonly says: string | null;
}

/**
 * Reads a WAV file: PCM of 8 to 32 bits, float, A-law, µ-law, plain or extensible.
 *
 * @param progress called now and then with the progress, 0..1.
 * @returns its channels, full scale as 1; or what is wrong.
 */
export function readWavTraces(
  bytes: Uint8Array,
  progress: (share: number) => void = () => undefined,
): Result<WavTraces, string> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const chunks = chunksOf(view);
  if (typeof chunks === 'string') return { ok: false, errors: chunks };
  const { format, start, announced } = chunks;
  const { channels, sampleRate, bits, block } = format;
  if (channels === 0 || block < (channels * bits) / 8)
    return { ok: false, errors: 'The WAV header has an invalid channel count.' };
  if (!(sampleRate >= ASSET.leastRate && sampleRate <= ASSET.mostRate))
    return {
      ok: false,
      errors: `A sample rate from ${ASSET.leastRate} to ${ASSET.mostRate} Hz can be read, not ${sampleRate}.`,
    };
  const read = readerOf(view, format);
  if (typeof read === 'string') return { ok: false, errors: read };
  const there = Math.floor(chunks.bytes / block);
  if (there === 0) return { ok: false, errors: 'It holds no samples.' };
  const count = Math.min(there, Math.round(ASSET.seconds * sampleRate));
  const columns = Array.from({ length: channels }, (_, c) => {
    const values = new Float32Array(count);
    for (let i = 0; i < count; i++) {
      values[i] = read(start + i * block + (c * bits) / 8);
      if (i % 262_144 === 0) progress((c + i / count) / channels);
    }
    return { name: `channel ${c + 1}`, values };
  });
  const short = announced > chunks.bytes && announced < 0xffffff00;
  const says = short
    ? `The file is truncated: the header says ${(announced / block / sampleRate).toPrecision(3)} s, but it ends at ${(there / sampleRate).toPrecision(3)} s.`
    : null;
  return { ok: true, value: { sampleRate, columns, says } };
}

/** Volts as a 32-bit float WAV of one channel, a volt as 1, to the bit. */
export function voltsToWav(volts: Float32Array, sampleRate: number): Uint8Array {
  const bytes = new Uint8Array(44 + volts.byteLength);
  const view = new DataView(bytes.buffer);
  const put = (at: number, text: string): void => bytes.set(new TextEncoder().encode(text), at);
  put(0, 'RIFF');
  view.setUint32(4, 36 + volts.byteLength, true);
  put(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, FLOAT, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, Math.round(sampleRate), true);
  view.setUint32(28, Math.round(sampleRate) * 4, true);
  view.setUint16(32, 4, true);
  view.setUint16(34, 32, true);
  put(36, 'data');
  view.setUint32(40, volts.byteLength, true);
  bytes.set(new Uint8Array(volts.buffer, volts.byteOffset, volts.byteLength), 44);
  return bytes;
}
