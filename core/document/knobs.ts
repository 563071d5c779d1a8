import { kindNamed } from '../kinds';
import { knobsOf } from '../kinds/knobs';
import type { KnobOf } from '../kinds/knobs';
import { completeParams } from './params';
import { socketAt } from './sockets';
import type { ModuleDoc } from './types';

/** A continuous knob of a module, and where it stands. */
export interface KnobIn extends KnobOf {
  /** `moduleId.parameter` */
  readonly at: string;
  readonly value: number;
}

/** The continuous knobs of a module as it is set; none where its kind is not known. */
export function knobsIn(m: ModuleDoc, bpm?: number): KnobIn[] {
  const kind = kindNamed(m.kind);
  if (!kind) return [];
  const params = completeParams(kind, m.params, bpm);
  return knobsOf(kind, params).map((knob) => ({
    ...knob,
    at: socketAt(m.id, knob.name),
    value: Number(params[knob.name]),
  }));
}
