import type { Kind } from './kind';
import type { NumberSpec, ParamSpec, ParamValues } from './params';

/** What people call a parameter; its name in the document where no kind has it. */
export const paramLabel = (name: string, spec?: ParamSpec): string => spec?.label ?? name;

/** A label inside a sentence: without what it says in brackets; abbreviations keep their capitals. */
export function inSentence(label: string): string {
  const plain = label.replace(/ \([^)]*\)$/, '');
  return /^[A-Z][a-z]/.test(plain) ? plain.charAt(0).toLowerCase() + plain.slice(1) : plain;
}

/** What people call an option of a choice. */
export const optionLabel = (spec: ParamSpec | undefined, value: string | number): string =>
  (spec?.type === 'choice' ? spec.optionLabels?.[String(value)] : undefined) ?? String(value);

/** What a builder sets once, and a player's hand does not reach for. */
export function isSetup(kind: Kind, name: string): boolean {
  return kind.params[name]?.setUp === true || (kind.panel?.below ?? []).some((pair) => pair.includes(name));
}

export interface KnobOf {
  readonly name: string;
  readonly spec: NumberSpec;
  readonly min: number;
  readonly max: number;
}

/** All continuous parameters that exist with these settings, each with its own span, what is set up once among them. */
export function continuousOf(kind: Kind, params: ParamValues): KnobOf[] {
  return Object.entries(kind.params).flatMap(([name, spec]): KnobOf[] => {
    if (spec.type !== 'number' || spec.whole || spec.nullable || !(spec.exists?.(params) ?? true)) return [];
    const [min, max] = spec.limits?.(params) ?? [spec.min, spec.max];
    return [{ name, spec: spec as NumberSpec, min, max }];
  });
}

/** The continuous knobs that a player's hand sets, each with its own span. */
export const knobsOf = (kind: Kind, params: ParamValues): KnobOf[] =>
  continuousOf(kind, params).filter((k) => !isSetup(kind, k.name));

/** A knob that most modules lack, at the value that it then has. */
export function isAbsent({ spec, name }: Pick<KnobOf, 'spec' | 'name'>, params: ParamValues): boolean {
  return spec.rare === true && params[name] === spec.default;
}
