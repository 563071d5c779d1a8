import { kindNamed } from '../kinds';
import { completeParams } from './params';
import type { ParamValue, ParamValues } from '../kinds/params';

/** What a channel can do while its switches stand one way. */
export interface ChannelMode {
  readonly kind: string;
  /** Parameters that have one value there. */
  readonly fixed: ParamValues;
  /** Knobs that reach less far than their kind's. */
  readonly ranges: Readonly<Record<string, readonly [number, number]>>;
  /** What jumpers and switches allow. */
  readonly choices: Readonly<Record<string, readonly ParamValue[]>>;
}

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
