import { placeName } from '../document/names';
import { partsOf, socketAt } from '../document/sockets';
import { showNumber, withUnit } from '../units/show';
import { needsLines } from './needs';
import type { MeterReading, Sheet, SheetStep } from './types';

/** What a meter calls what it reads. */
export const METER_NAMES: Readonly<Record<MeterReading['quantity'], string>> = {
  low: 'Min',
  high: 'Max',
  mean: 'Mean',
  steady: 'DC',
  rms: 'AC RMS',
  percent: 'Duty cycle',
  pulses: 'Pulses',
};

/** `Min −5.00 ± 0.13 V` */
export function meterText({ quantity, value, plusMinus, unit }: MeterReading): string {
  const digits = unit === 'V' ? 2 : unit === '%' ? 0 : 2;
  const error = withUnit(showNumber(plusMinus, unit === '%' ? 0 : 2), unit);
  return `${METER_NAMES[quantity]} ${showNumber(value, digits)} ± ${error}`;
}

/** What a part of a sheet is, in words. */
export function partText({ needs }: Pick<Sheet, 'needs'>, part: string): string {
  if (part === 'start') return 'Before you start';
  if (part === 'sound') return 'Audio path';
  if (part === 'last') return 'Finally';
  const { id, name } = partsOf(part.replace(/^path /, ''));
  const there = needs.modules.find((m) => m.module === id);
  const label = there?.label ?? id;
  return name === ''
    ? label
    : `Control path to ${placeName([{ id, kind: there?.kind ?? '', label }], socketAt(id, name))}`;
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
  const place = step.do === 'set' && step.channel !== null ? ` (${step.channel})` : '';
  const expected = step.do === 'measure' ? `: ${step.expect.meter.map(meterText).join(', ')}` : '';
  return `- [ ] ${escaped(step.text)}${place}${expected}`;
}

/** A sheet as Markdown with boxes to tick. */
export function sheetToMarkdown(sheet: Sheet): string {
  const { needs, cautions, steps } = sheet;
  return [
    `# ${escaped(sheet.patch)}`,
    ...(sheet.rack === null ? [] : [`Rack: ${escaped(sheet.rack)}`]),
    '## You’ll need',
    needsLines(needs)
      .map((line) => `- ${escaped(line)}`)
      .join('\n'),
    '## Safety',
    cautions.map((c) => `- ${escaped(c)}`).join('\n'),
    ...sheetParts(steps).flatMap((p) => [`## ${escaped(partText(sheet, p.part))}`, p.steps.map(line).join('\n')]),
    '',
  ].join('\n\n');
}
