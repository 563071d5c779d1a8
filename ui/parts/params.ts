import { showHz, showNumber, showSeconds, showVolts, withUnit } from '@/core';
import { glossary } from './glossary';
import type { Word } from './glossary';
import type { ChannelLimits, NumberSpec, ParamSpec, ParamValues, Travel } from '@/core';

export function showParam(spec: NumberSpec<number | null>, value: number | null): string {
  if (value === null) return 'none';
  if (spec.unit === 'V') return showVolts(value);
  if (spec.unit === 'Hz') return showHz(value);
  if (spec.unit === 's') return showSeconds(value);
  if (spec.unit === 'Ω')
    return withUnit(value >= 1000 ? `${showNumber(value / 1000, 1)}\u00a0k` : showNumber(value, 0), spec.unit).replace(
      'k\u00a0',
      'k',
    );
  return withUnit(showNumber(value, spec.whole ? 0 : 2, spec.min < 0), spec.unit);
}

export function travelOf(spec: NumberSpec<number | null>, params: ParamValues): Travel {
  const [min, max] = spec.limits?.(params) ?? [spec.min, spec.max];
  return { min, max, taper: spec.taper };
}

/** The same travel on the channel that a module sits on. */
export function narrowed(travel: Travel, channels: ChannelLimits | null, at: string): Travel {
  const [min, max] = channels?.limits.get(at) ?? [travel.min, travel.max];
  const panel = channels?.panels.get(at);
  return panel || min !== travel.min || max !== travel.max ? { ...travel, min, max, ...(panel && { panel }) } : travel;
}

export const isKnob = (spec: ParamSpec): spec is NumberSpec | NumberSpec<number | null> => spec.type === 'number';

/** Words of the field that a setting's name stands for. */
const words: Readonly<Record<string, Word>> = {
  amount: 'attenuverter',
  bias: 'bias',
  volts: 'offset',
  normalVolts: 'normal',
  unityVolts: 'unity',
  thresholdVolts: 'gate',
  limitVolts: 'rail',
  quadrants: 'four-quadrant',
  rise: 'slew',
  fall: 'slew',
  build: 'mult',
};

/** What a setting is, for who rests the pointer on it. */
export function paramSays(name: string, spec: ParamSpec): string | undefined {
  const word = words[name];
  return spec.says ?? (word && glossary[word]);
}
