import { kindNamed } from '../kinds';
import { completeParams } from './params';
import type { ChannelMode } from './rackTypes';

/** The sockets that a mode has: with as many inputs as its fixed settings give it. */
export function modeSockets({ kind: name, fixed }: ChannelMode): {
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
} {
  const kind = kindNamed(name);
  if (!kind) return { inputs: [], outputs: [] };
  const params = completeParams(kind, fixed);
  return { inputs: kind.inputs(params).map((s) => s.name), outputs: kind.outputs(params) };
}
