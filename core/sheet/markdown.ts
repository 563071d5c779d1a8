import { placeName } from '../document/names';
import { partsOf, socketAt } from '../document/sockets';
import { showNumber } from '../units/show';
import type { MeterReading, Sheet, SheetStep } from './types';

const NAMES: Readonly<Record<MeterReading['quantity'], string>> = {
  low: 'lowest',
  high: 'highest',
  mean: 'mean',
  steady: 'steady',
  rms: 'AC',
  percent: 'high for',
  pulses: 'pulses',
};

/** `lowest −5.00 ± 0.13 V` */
export function meterText({ quantity, value, plusMinus, unit }: MeterReading): string {
  const digits = unit === 'V' ? 2 : unit === '%' ? 0 : 2;
  return `${NAMES[quantity]} ${showNumber(value, digits)} ± ${showNumber(plusMinus, unit === '%' ? 0 : 2)}\u2009${unit}`;
}

/** What a part of a sheet is, in words. */
export function partText({ needs }: Pick<Sheet, 'needs'>, part: string): string {
  if (part === 'start') return 'Before anything';
  if (part === 'sound') return 'Sound';
  if (part === 'last') return 'Last';
  const { id, name } = partsOf(part.replace(/^path /, ''));
  const there = needs.modules.find((m) => m.module === id);
  const label = there?.label ?? id;
  return name === '' ? label : `To ${placeName([{ id, kind: there?.kind ?? '', label }], socketAt(id, name))}`;
}

/** Steps under the parts that they stand in, in their order. */
export function sheetParts(
  steps: readonly SheetStep[],
): { readonly part: string; readonly steps: readonly SheetStep[] }[] {
  const parts: { part: string; steps: SheetStep[] }[] = [];
  for (const step of steps) {
    const last = parts.at(-1);
    if (last?.part === step.part) last.steps.push(step);
    else parts.push({ part: step.part, steps: [step] });
  }
  return parts;
}

const escaped = (text: string): string => text.replace(/[\\`*_{}[\]<>#|]/g, (c) => `\\${c}`);

function line(step: SheetStep): string {
  const place = step.do === 'set' && step.rack !== null ? ` (${step.rack})` : '';
  const expected = step.do === 'measure' ? `: ${step.expect.meter.map(meterText).join(', ')}` : '';
  return `- [ ] ${escaped(step.text)}${place}${expected}`;
}

/** A sheet as Markdown with boxes to tick. */
export function sheetToMarkdown(sheet: Sheet): string {
  const { needs, cautions, steps } = sheet;
  const modules = needs.modules.map((m) => {
    const place = m.rack === null ? '' : `, ${m.rack}`;
    return `- ${escaped(m.label)} (${m.kind}${place})${m.standIn === null ? '' : `: ${escaped(m.standIn)}`}`;
  });
  const splits = needs.splits.map((s) => `- ${s.at} goes ${s.ways} ways`);
  const short = needs.short.map((s) => `- Short: ${s.module} (${s.kind}), ${escaped(s.why)}`);
  return [
    `# ${escaped(sheet.patch)}`,
    ...(sheet.rack === null ? [] : [`Rack: ${escaped(sheet.rack)}`]),
    '## Needs',
    [...modules, `- ${needs.cables} cables`, ...splits, ...short].join('\n'),
    '## Care',
    cautions.map((c) => `- ${escaped(c)}`).join('\n'),
    ...sheetParts(steps).flatMap((p) => [`## ${escaped(partText(sheet, p.part))}`, p.steps.map(line).join('\n')]),
    '',
  ].join('\n\n');
}
