import { idOf, nameOf } from '../document/sockets';
import type { Patch } from '../document/types';
import type { Drawn, KnobValue } from './types';

const valueOf = (patch: Patch, at: string): number =>
  Number(patch.modules.find((m) => m.id === idOf(at))?.params?.[nameOf(at)] ?? NaN);

/** Knobs to set: as they stand, and as they stand in the patch that gives what is wanted. */
export function knobTo(
  shown: Patch,
  solved: Patch,
  knobs: readonly string[],
): Pick<Drawn, 'patch' | 'solved' | 'answer' | 'knobs' | 'truth'> {
  const values = knobs.map((at): KnobValue => ({ at, value: valueOf(solved, at) }));
  return { patch: shown, solved, answer: 'knob', knobs, truth: () => ({ knobs: values }) };
}
