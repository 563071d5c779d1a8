import {
  benchReadings,
  calibrate,
  channelLimits,
  diagnose,
  LOG_LIMITS,
  parseLog,
  parseFault,
  parseReadings,
  printRack,
  readingsDocument,
} from '../core';
import type { ChannelLimits, Fault, Patch } from '../core';
import { Refusal } from './arguments';
import type { Arguments } from './arguments';
import { must, readJson, readPatch, readRack, seatedOn } from './documents';

/** A patch as it stands on a rack's channels, where one is given. */
function seated(
  patch: Patch,
  rack: string | undefined,
  measured = false,
): { patch: Patch; channels: ChannelLimits | null } {
  if (rack === undefined) {
    if (measured) throw new Refusal(['--as-measured needs a rack']);
    return { patch, channels: null };
  }
  const owned = readRack(rack);
  const there = seatedOn(patch, owned, measured);
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
export function diagnoseCommand({ files, asMeasured }: Arguments): unknown {
  const [first, second, rack, ...more] = files;
  if (first === undefined || second === undefined || more.length > 0)
    throw new Refusal(['diagnose takes a patch, its readings, and a rack after them']);
  const { patch, channels } = seated(readPatch(first), rack, asMeasured);
  const { readings } = must(second, parseReadings(readJson(second), patch));
  return diagnose(patch, readings, { channels });
}

/** What a simulated rack reads, wherever the sheet measures. */
export function benchCommand({ files, seed, faults, ideal, steps }: Arguments): unknown {
  const [first, rack, ...more] = files;
  if (first === undefined || more.length > 0) throw new Refusal(['bench takes a patch, and a rack after it']);
  const { patch, channels } = seated(readPatch(first), rack);
  const put = faults.map((text) => faultOf(text, patch));
  return readingsDocument(benchReadings(patch, { seed, faults: put, ideal, steps, channels }));
}

/** What the readings of a log tell of the channels of a rack. */
export function calibrateCommand({ files }: Arguments): unknown {
  const [first, second, ...more] = files;
  if (first === undefined || second === undefined || more.length > 0)
    throw new Refusal(['calibrate takes a rack and its log']);
  const rack = readRack(first);
  const log = must(second, parseLog(readJson(second, LOG_LIMITS.bytes), rack));
  const { fit: _fit, ...found } = calibrate(rack, log);
  return { ...found, rack: printRack(found.rack) };
}
