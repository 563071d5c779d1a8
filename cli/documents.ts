import { readFileSync } from 'node:fs';
import {
  applyEdits,
  asMeasured,
  assignRack,
  LIMITS,
  parsePatch,
  parseRack,
  readEndsRequest,
  readPlanRequest,
} from '../core';
import type { EndsRequest, Patch, PatchError, PlanRequest, Rack, Result } from '../core';
import { Refusal } from './arguments';

function readText(file: string): string {
  try {
    return readFileSync(file === '-' ? 0 : file, 'utf8');
  } catch (error) {
    throw new Refusal([`${file}: could not be read: ${error instanceof Error ? error.message : error}`]);
  }
}

/** A file's JSON. */
export function readJson(file: string, most: number = LIMITS.bytes): unknown {
  const text = readText(file);
  if (Buffer.byteLength(text) > most) throw new Refusal([`${file}: is larger than ${most} bytes`]);
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new Refusal([`${file}: is not JSON: ${error instanceof Error ? error.message : error}`]);
  }
}

/** The value of what was read; @throws Refusal with every fault's place. */
export function must<T>(file: string, result: Result<T, PatchError[]>): T {
  if (result.ok) return result.value;
  throw new Refusal(result.errors.map((e) => `${file}: ${e.path}${e.path ? ': ' : ''}${e.message}`));
}

const isRack = (json: unknown): boolean =>
  typeof json === 'object' && json !== null && 'format' in json && json.format === 'fenvo.rack';

export const readPatch = (file: string): Patch => must(file, parsePatch(readJson(file)));
export const readRack = (file: string): Rack => must(file, parseRack(readJson(file)));
/** A request for one end, or for several. */
export function readRequest(file: string): PlanRequest | EndsRequest {
  const json = readJson(file);
  const several = typeof json === 'object' && json !== null && 'ends' in json;
  return several ? must(file, readEndsRequest(json)) : must(file, readPlanRequest(json));
}

/** A patch as it stands on a rack's channels, and as they were measured where that is asked for. */
export function seatedOn(patch: Patch, rack: Rack, measured = false): Patch {
  const there = applyEdits(
    patch,
    assignRack(patch, rack).assigned.flatMap((a) => a.edits),
  );
  return measured ? asMeasured(there, rack) : there;
}

/** Patches of files, as the one rack among them was measured. */
export function readMeasured(files: readonly string[]): Patch[] {
  const read = files.map(readEither);
  const racks = read.flatMap((r) => ('rack' in r ? [r.rack] : []));
  const patches = read.flatMap((r) => ('patch' in r ? [r.patch] : []));
  const [rack] = racks;
  if (!rack || racks.length > 1 || patches.length === 0)
    throw new Refusal(['--as-measured takes patches and one rack']);
  return patches.map((patch) => seatedOn(patch, rack, true));
}

/** A patch or a rack, whichever a file says it is. */
export function readEither(file: string): { readonly patch: Patch } | { readonly rack: Rack } {
  const json = readJson(file);
  return isRack(json) ? { rack: must(file, parseRack(json)) } : { patch: must(file, parsePatch(json)) };
}
