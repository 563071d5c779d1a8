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

/** A patch with its recordings: a zip of the document and of float WAV files, a volt as 1. */
export interface Bundle {
  readonly document: unknown;
  readonly recordings: readonly Recording[];
}

const PATCH = 'patch.fenvo.json';
const LIST = 'recordings.json';
const wavOf = (id: string): string => `recordings/${id}.wav`;

interface Listed {
  readonly id: string;
  readonly name: string;
  readonly sampleRate: number;
}

export function packBundle({ document, recordings }: Bundle): Uint8Array {
  const list = recordings.map(({ id, name, sampleRate }): Listed => ({ id, name, sampleRate }));
  const wavs = recordings.map(({ id, volts, sampleRate }) => [wavOf(id), voltsToWav(volts, sampleRate)] as const);
  return zipSync(
    {
      [PATCH]: strToU8(`${JSON.stringify(document, null, 2)}\n`),
      [LIST]: strToU8(`${JSON.stringify(list, null, 2)}\n`),
      ...Object.fromEntries(wavs),
    },
    // Samples hardly shrink, and are many.
    { level: 1 },
  );
}

/** @returns what a bundle holds; or what is missing or wrong in it, by the file's name. */
export function unpackBundle(bytes: Uint8Array): Result<Bundle, string> {
  try {
    const files = unzipSync(bytes);
    const patch = files[PATCH];
    if (!patch) return { ok: false, errors: `It holds no ${PATCH}.` };
    const document: unknown = JSON.parse(strFromU8(patch));
    const list = JSON.parse(strFromU8(files[LIST] ?? strToU8('[]'))) as readonly Listed[];
    const recordings: Recording[] = [];
    for (const { id, name, sampleRate } of list) {
      const wav = files[wavOf(id)];
      const read = wav && readWavTraces(wav);
      const volts = read?.ok ? read.value.columns[0]?.values : undefined;
      if (!volts) return { ok: false, errors: `${wavOf(id)}: ${read && !read.ok ? read.errors : 'it is missing.'}` };
      recordings.push({ id, name, sampleRate, volts });
    }
    return { ok: true, value: { document, recordings } };
  } catch (error) {
    return { ok: false, errors: error instanceof Error ? error.message : String(error) };
  }
}
