import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import type { Result } from '../document/types';
import { readWavTraces, voltsToWav } from './wavFile';

/** A recording that a patch plays. */
export interface Recording {
  readonly id: string;
  readonly name: string;
  readonly sampleRate: number;
  readonly volts: Float32Array;
}

/** Patches with their recordings: a zip of the documents and of float WAV files, a volt as 1. */
export interface Bundle {
  readonly documents: readonly unknown[];
  readonly recordings: readonly Recording[];
}

const PATCH = /\.fenvo\.json$/;
/** Numbered where there are several, so that names need not be files' names. */
const patchFile = (index: number, count: number): string =>
  count === 1 ? 'patch.fenvo.json' : `patches/${String(index + 1).padStart(3, '0')}.fenvo.json`;
const LIST = 'recordings.json';
const wavOf = (id: string): string => `recordings/${id}.wav`;

interface Listed {
  readonly id: string;
  readonly name: string;
  readonly sampleRate: number;
}

export function packBundle({ documents, recordings }: Bundle): Uint8Array {
  const list = recordings.map(({ id, name, sampleRate }): Listed => ({ id, name, sampleRate }));
  const wavs = recordings.map(({ id, volts, sampleRate }) => [wavOf(id), voltsToWav(volts, sampleRate)] as const);
  const patches = documents.map(
    (d, i) => [patchFile(i, documents.length), strToU8(`${JSON.stringify(d, null, 2)}\n`)] as const,
  );
  return zipSync(
    {
      ...Object.fromEntries(patches),
      [LIST]: strToU8(`${JSON.stringify(list, null, 2)}\n`),
      ...Object.fromEntries(wavs),
    },
    // Samples hardly shrink, and are many.
    { level: 1 },
  );
}

/** What a bundle may hold, told by its list before anything is unpacked. */
export const BUNDLE = {
  entries: 2000,
  /** Unpacked, bytes. */
  bytes: 600_000_000,
  /** The greatest ratio of unpacked to packed, beyond this many bytes. */
  ratio: 100,
  ratioFrom: 20_000_000,
} as const;

interface Listing {
  readonly name: string;
  readonly originalSize: number;
}

/** Counts files as their list is read. @throws Error where they are too many, too large, or packed too small. */
export function withinLimits(packed: number): (file: Listing) => boolean {
  let [entries, bytes] = [0, 0];
  return ({ originalSize }) => {
    entries++;
    bytes += originalSize;
    const sizes = `${Math.round(packed / 1000)} kB would unpack to ${Math.round(bytes / 1e6)} MB`;
    if (entries > BUNDLE.entries) throw new Error(`It holds more than ${BUNDLE.entries} files.`);
    if (bytes > BUNDLE.bytes) throw new Error(`It is too large: ${sizes}, at most ${BUNDLE.bytes / 1e6} MB are taken.`);
    if (bytes > BUNDLE.ratioFrom && bytes > BUNDLE.ratio * packed)
      throw new Error(`It is packed more than ${BUNDLE.ratio} times: ${sizes}. Nothing was unpacked.`);
    return true;
  };
}

/** @returns what a bundle holds; or what is missing or wrong in it, by the file's name. */
export function unpackBundle(bytes: Uint8Array): Result<Bundle, string> {
  try {
    const files = unzipSync(bytes, { filter: withinLimits(bytes.length) });
    const names = Object.keys(files).filter((name) => PATCH.test(name));
    if (names.length === 0) return { ok: false, errors: 'It holds no .fenvo.json file.' };
    const documents = names.sort().map((name) => JSON.parse(strFromU8(files[name] as Uint8Array)) as unknown);
    const list = JSON.parse(strFromU8(files[LIST] ?? strToU8('[]'))) as readonly Listed[];
    const recordings: Recording[] = [];
    for (const { id, name, sampleRate } of list) {
      const wav = files[wavOf(id)];
      const read = wav && readWavTraces(wav);
      const volts = read?.ok ? read.value.columns[0]?.values : undefined;
      if (!volts) return { ok: false, errors: `${wavOf(id)}: ${read && !read.ok ? read.errors : 'it is missing.'}` };
      recordings.push({ id, name, sampleRate, volts });
    }
    return { ok: true, value: { documents, recordings } };
  } catch (error) {
    return { ok: false, errors: error instanceof Error ? error.message : String(error) };
  }
}
