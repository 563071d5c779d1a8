import Papa from 'papaparse';
import type { Sheet, SheetStep } from './types';

const COLUMNS = ['id', 'part', 'do', 'text', 'from', 'to', 'at', 'quantity', 'value', 'plusminus', 'unit'] as const;

type Row = Partial<Record<(typeof COLUMNS)[number], string | number>>;

/** One row a step; a measuring step has one for each figure, a setting one for each knob. */
function rowsOf(step: SheetStep): Row[] {
  const { id, part, text } = step;
  const row: Row = { id, part, do: step.do, text };
  switch (step.do) {
    case 'plug':
      return [{ ...row, from: step.cable.from, to: step.cable.to }];
    case 'measure':
      return step.expect.meter.map((m) => ({
        ...row,
        at: step.expect.at,
        quantity: m.quantity,
        value: m.value,
        plusminus: m.plusMinus,
        unit: m.unit,
      }));
    case 'set':
      return step.knobs.length === 0
        ? [{ ...row, at: step.module }]
        : step.knobs.map((k) => ({ ...row, at: step.module, quantity: k.param, value: k.value }));
    case 'listen': {
      const { at, low, high, unit } = step.expect;
      const figure = (quantity: string, value: number | null): Row[] =>
        value === null ? [] : [{ ...row, at, quantity, value, unit }];
      const both = [...figure('low', low), ...figure('high', high)];
      return both.length > 0 ? both : [{ ...row, at }];
    }
    case 'note':
      return [row];
  }
}

/** A sheet as a table: `id,part,do,text,from,to,at,quantity,value,plusminus,unit`. */
export const sheetToCsv = (sheet: Sheet): string =>
  `${Papa.unparse(sheet.steps.flatMap(rowsOf), { columns: [...COLUMNS], newline: '\n', escapeFormulae: true })}\n`;
