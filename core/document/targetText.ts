import { kindNamed } from '../kinds';
import type { Quantity } from '../kinds/traits';
import { countsOctaves } from '../units/ratios';
import { showQuantity, showRange } from '../units/show';
import { placeName } from './names';
import { completeParams } from './params';
import type { KnownModule } from './reader';
import { idOf, socketAt } from './sockets';
import type { Target } from './targets';

/** Units of quantities that have the same one at every socket. */
const UNITS: Readonly<Partial<Record<Quantity, string>>> = { volts: 'V', frequency: 'Hz', gain: 'dB', time: 's' };

/** The unit that a target's figures are in; none for a plain number. */
export function targetUnit(modules: readonly KnownModule[], target: Target): string {
  if (!('quantity' in target)) return '';
  const { at, quantity } = target;
  const m = modules.find((x) => x.id === idOf(at));
  const kind = m && kindNamed(m.kind);
  if (m && kind) {
    const params = completeParams(kind, m.params);
    const ends = kind.ends?.filter((e) => socketAt(m.id, e.socket) === at) ?? [];
    const end = ends.find((e) => e.quantity === quantity || e.unit(params) === quantity);
    if (end) return end.unit(params);
  }
  return UNITS[quantity as Quantity] ?? '';
}

type Figure = number | 'silent' | null;

function rangeText(low: Figure, high: Figure, unit: string): string {
  const shown = (x: Figure): string => (x === 'silent' ? 'silence' : showQuantity(x, unit));
  if (low === null) return `at most ${shown(high)}`;
  if (high === null) return `at least ${shown(low)}`;
  if (low === 'silent') return `silence to ${shown(high)}`;
  return showRange(low, high as number, unit);
}

/** A target in a few words, with names and units: `212 Hz to 7.60 kHz`, `opposite to Right lamp cutoff`. */
export function targetText(modules: readonly KnownModule[], t: Target): string {
  const unit = targetUnit(modules, t);
  switch (t.want) {
    case undefined:
    case 'range':
      return rangeText(t.low, t.high, unit);
    case 'within':
      return t.low === null || t.high === null
        ? rangeText(t.low, t.high, unit)
        : `within ${rangeText(t.low, t.high, unit)}`;
    case 'span': {
      const wide = countsOctaves(t.quantity) ? `${t.span} octaves` : showQuantity(t.span, unit).replace(/^\+/, '');
      return `${wide} wide${t.centre === null ? '' : `, centred on ${showQuantity(t.centre, unit)}`}`;
    }
    case 'mean':
      return `average ${showQuantity(t.value, unit)}`;
    case 'opposite':
      return `opposite to ${placeName(modules, t.to)}`;
    case 'same':
      return `the same as ${placeName(modules, t.to)}`;
    case 'steps':
      return `high on steps ${t.steps.map((s) => s + 1).join(', ') || 'none'} of ${placeName(modules, t.of)}`;
    case 'duty':
      return `high ${t.percent}% of the time`;
    case 'fall':
      return `decays ${t.db} dB in ${t.seconds} s`;
    case 'dip':
      return `level dips by ${t.db} dB`;
    case 'arrive':
      return `steps arrive in ${t.seconds} s`;
    case 'like':
      return `close to a ${t.shape}`;
  }
}
