import type { Kind } from './kind';
import type { NumberSpec, ParamSpec, ParamValues } from './params';

/** `riseAmount` as it is read: `rise amount`. */
export const spoken = (name: string, spec?: ParamSpec): string =>
  spec?.label ??
  name
    .replace(/(?<=.)(Volts|Hz|Ohms|Db|Cents)$/, '')
    .replace(/([A-Z])/g, (c) => ` ${c.toLowerCase()}`)
    .replace(/(\d+)$/, ' $1')
    .trim();

/** What a builder sets once, and a player's hand does not reach for. */
export function isSetup(kind: Kind, name: string): boolean {
  return kind.params[name]?.setUp === true || (kind.below ?? []).some((pair) => pair.includes(name));
}

export interface KnobOf {
  readonly name: string;
  readonly spec: NumberSpec;
  readonly min: number;
  readonly max: number;
}

/** The continuous knobs that a player's hand sets, each with its own span. */
export function knobsOf(kind: Kind, params: ParamValues): KnobOf[] {
  return Object.entries(kind.params).flatMap(([name, spec]): KnobOf[] => {
    if (
      spec.type !== 'number' ||
      spec.whole ||
      spec.nullable ||
      isSetup(kind, name) ||
      !(spec.exists?.(params) ?? true)
    )
      return [];
    const [min, max] = spec.limits?.(params) ?? [spec.min, spec.max];
    return [{ name, spec: spec as NumberSpec, min, max }];
  });
}
