import { socketAt } from '../document/sockets';
import { kindNamed } from '../kinds';
import type { Kind } from '../kinds/kind';
import { inSentence, isAbsent, isSetup, knobsOf, optionLabel, paramLabel } from '../kinds/knobs';
import type { ParamSpec, ParamValue, ParamValues } from '../kinds/params';
import type { ChannelLimits } from '../rack/limits';
import { clockOf, figureOf, positionOf } from '../units/knob';
import { scaleText } from '../units/scales';
import { showNumber, showQuantity } from '../units/show';
import type { KnobStep, SetupStep, Sheet } from './types';

/** What a knob of a step is called, as its module’s kind has it. */
export function knobName(sheet: Pick<Sheet, 'needs'>, id: string, param: string): string {
  const kind = sheet.needs.modules.find((m) => m.module === id)?.kind ?? '';
  return inSentence(paramLabel(param, kindNamed(kind)?.params[param]));
}

/** Where each hand knob of a module stands, on the channel that it sits on. */
export function knobSteps(id: string, kind: Kind, params: ParamValues, channels: ChannelLimits): KnobStep[] {
  return knobsOf(kind, params).flatMap((knob): KnobStep[] => {
    const { name, spec, min, max } = knob;
    if (isAbsent(knob, params) && !channels.limits.has(socketAt(id, name))) return [];
    const [low, high] = channels.limits.get(socketAt(id, name)) ?? [min, max];
    if (high <= low && channels.limits.has(socketAt(id, name))) return [];
    const panel = channels.panels.get(socketAt(id, name));
    const travel = { min: low, max: high, taper: spec.taper, ...(panel && { panel }) };
    const value = Number(params[name]);
    const position = positionOf(travel, value);
    return [
      {
        param: name,
        value,
        percent: Number((100 * position).toFixed(1)),
        clock: clockOf(position),
        ...(panel && { panel: Number(figureOf({ ...travel, panel }, value).toPrecision(4)) }),
      },
    ];
  });
}

/** What is set up by switches, jumpers and lists: all that no hand turns. */
export function setupSteps(kind: Kind, params: ParamValues, shown: readonly KnobStep[]): SetupStep[] {
  const knobs = new Set(shown.map((k) => k.param));
  return Object.entries(kind.params)
    .filter(([name, spec]) => !knobs.has(name) && (spec.exists?.(params) ?? true))
    .map(([param]) => ({ param, value: params[param] as ParamValue }));
}

/** `8 steps`, `5 points` */
function counted(list: readonly unknown[]): string {
  const what = typeof list[0] === 'object' && list[0] !== null && 't' in list[0] ? 'point' : 'step';
  return `${list.length} ${what}${list.length === 1 ? '' : 's'}`;
}

/** A setting as a sentence says it: `0.50 s`, `average`, `8 steps`. */
export const settingText = (value: ParamValue, spec: ParamSpec | undefined): string => {
  if (spec?.type === 'scale') return scaleText(value as string | readonly number[]);
  if (Array.isArray(value)) return counted(value);
  if (typeof value === 'boolean') return value ? 'on' : 'off';
  if (value === null) return 'none';
  if (spec?.type === 'choice') return inSentence(optionLabel(spec, value as string | number));
  if (typeof value === 'number' && spec?.type === 'number' && spec.whole) return String(value);
  return typeof value === 'number' && spec?.type === 'number'
    ? showQuantity(value, spec.unit).replace(/^\+/, '')
    : String(value);
};

/**
 * A step in words: clock positions of the knobs, then what differs from what is usual.
 *
 * @param every whether what is usual is said too: it was otherwise before.
 */
export function setText(
  name: string,
  kind: Kind,
  knobs: readonly KnobStep[],
  setup: readonly SetupStep[],
  every = false,
): string {
  const turns = knobs.map((k) => {
    const panel = k.panel === undefined ? '' : ` (${showNumber(k.panel, 1)})`;
    return `${inSentence(paramLabel(k.param, kind.params[k.param]))} ${k.clock}${panel}`;
  });
  const differs = setup.filter(({ param, value }) => {
    const spec = kind.params[param];
    const usual = JSON.stringify(spec?.default) === JSON.stringify(value);
    return every || !usual || (!isSetup(kind, param) && spec?.type === 'choice');
  });
  const switches = differs.map(
    ({ param, value }) =>
      `${inSentence(paramLabel(param, kind.params[param]))} ${settingText(value, kind.params[param])}`,
  );
  const all = [...turns, ...switches];
  return all.length > 0 ? `Set ${name}: ${all.join(', ')}` : `${name}: leave at defaults`;
}
