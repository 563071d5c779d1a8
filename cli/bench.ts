import {
  assignRack,
  applyEdits,
  benchReadings,
  channelLimits,
  diagnose,
  parseFault,
  parseReadings,
  readingsDocument,
} from '../core';
import type { ChannelLimits, Fault, Patch } from '../core';
import { Refusal } from './arguments';
import type { Arguments } from './arguments';
import { must, readJson, readPatch, readRack } from './documents';

/** A patch as it stands on a rack's channels. */
function seated(patch: Patch, rack: string | undefined): { patch: Patch; channels: ChannelLimits | null } {
  if (rack === undefined) return { patch, channels: null };
  const owned = readRack(rack);
  const edits = assignRack(patch, owned).assigned.flatMap((a) => a.edits);
  const there = applyEdits(patch, edits);
  return { patch: there, channels: channelLimits(there, owned) };
}

function faultOf(text: string, patch: Patch): Fault {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    throw new Refusal([`--fault is not JSON: ${error instanceof Error ? error.message : error}`]);
  }
  return must('--fault', parseFault(json, patch));
}

/** Which fault explains readings that were taken at a rack. */
export function diagnoseCommand({ files }: Arguments): unknown {
  const [first, second, rack, ...more] = files;
  if (first === undefined || second === undefined || more.length > 0)
    throw new Refusal(['diagnose takes a patch, its readings, and a rack after them']);
  const { patch, channels } = seated(readPatch(first), rack);
  const { readings } = must(second, parseReadings(readJson(second), patch));
  return diagnose(patch, readings, { channels });
}

/** What a simulated rack reads, wherever the sheet measures. */
export function benchCommand({ files, seed, faults, ideal, steps }: Arguments): unknown {
  const [first, rack, ...more] = files;
  if (first === undefined || more.length > 0) throw new Refusal(['bench takes a patch, and a rack after it']);
  const { patch } = seated(readPatch(first), rack);
  const put = faults.map((text) => faultOf(text, patch));
  return readingsDocument(benchReadings(patch, { seed, faults: put, ideal, steps }));
}
