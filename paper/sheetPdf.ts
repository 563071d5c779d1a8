import path from 'node:path';
import { knobName, knobSvg, meterText, needsLines, partText, sheetParts } from '../core';
import type { Sheet, SheetStep } from '../core';

export type PaperSize = 'A4' | 'LETTER';

type Node = Readonly<Record<string, unknown>>;

/** From the root of the program, where it is run. */
const face = (name: string, weight: number): string =>
  path.join(process.cwd(), 'node_modules', '@fontsource', name, 'files', `${name}-latin-${weight}-normal.woff`);

/** The program's own faces, embedded. */
function fonts(): Record<string, Record<string, string>> {
  const of = (name: string): Record<string, string> => {
    const [normal, bold] = [face(name, 400), face(name, 700)];
    return { normal, bold, italics: normal, bolditalics: bold };
  };
  return { Text: of('atkinson-hyperlegible-next'), Numbers: of('atkinson-hyperlegible-mono') };
}

/** What the faces have no sign for is written with one that they have. */
const plain = (text: string): string =>
  text
    .replace(/\u00a0/g, '\u00a0')
    .replace(/\u2026/g, '...')
    .replace(/→/g, 'to');

const BOX =
  '<svg xmlns="http://www.w3.org/2000/svg" width="11" height="11"><rect x="0.5" y="0.5" width="10" height="10" rx="1.5" fill="none" stroke="#1C2B33"/></svg>';

/** A row of knobs, each with its name, its clock position and its percent. */
function knobRow(sheet: Sheet, step: Extract<SheetStep, { do: 'set' }>): Node[] {
  if (step.knobs.length === 0) return [];
  const one = (k: (typeof step.knobs)[number]): Node => ({
    width: 74,
    stack: [
      { svg: knobSvg(k.percent / 100), width: 28, alignment: 'center' },
      { text: plain(k.clock), font: 'Numbers', fontSize: 9, bold: true, alignment: 'center' },
      { text: plain(knobName(sheet, step.module, k.param)), fontSize: 7.5, alignment: 'center' },
    ],
  });
  const rows: Node[] = [];
  for (let i = 0; i < step.knobs.length; i += 6)
    rows.push({ columns: step.knobs.slice(i, i + 6).map(one), columnGap: 2, margin: [0, 3, 0, 2] });
  return rows;
}

function details(sheet: Sheet, step: SheetStep): Node[] {
  switch (step.do) {
    case 'set':
      return knobRow(sheet, step);
    case 'measure':
      return step.expect.meter.map((m) => ({
        columns: [
          { text: plain(meterText(m)), font: 'Numbers', fontSize: 9, width: 230 },
          { text: 'read: ____________', fontSize: 9, width: '*', alignment: 'right' },
        ],
      }));
    default:
      return [];
  }
}

/** One step: a box to tick, what to do, and what must be read there; never torn by a page. */
const stepNode = (sheet: Sheet, step: SheetStep): Node => ({
  unbreakable: true,
  margin: [0, 0, 0, 7],
  columnGap: 7,
  columns: [
    { width: 11, stack: [{ svg: BOX, width: 11 }], margin: [0, 1, 0, 0] },
    {
      width: '*',
      stack: [
        { text: plain(step.do === 'set' && step.channel ? `${step.text} (${step.channel})` : step.text) },
        ...details(sheet, step),
      ],
    },
  ],
});

function needsNode({ needs }: Sheet): Node {
  const lines = needsLines(needs);
  const half = Math.ceil(lines.length / 2);
  const list = (part: string[]): Node => ({ ul: part.map(plain), width: '*', fontSize: 9 });
  return { columns: [list(lines.slice(0, half)), list(lines.slice(half))], columnGap: 16, margin: [0, 0, 0, 6] };
}

/** A part's head stays with its first step. */
function partNodes(sheet: Sheet, { part, steps }: ReturnType<typeof sheetParts>[number]): Node[] {
  const [first, ...rest] = steps;
  const head: Node = { text: plain(partText(sheet, part)), bold: true, fontSize: 12, margin: [0, 8, 0, 4] };
  if (!first) return [head];
  return [{ unbreakable: true, stack: [head, stepNode(sheet, first)] }, ...rest.map((s) => stepNode(sheet, s))];
}

/** A sheet as a PDF: black on white, the faces embedded, knobs as vectors, no step torn. */
export async function sheetPdf(sheet: Sheet, pageSize: PaperSize = 'A4'): Promise<Uint8Array> {
  // Loaded with the first sheet that is printed: nothing else needs it.
  const { default: pdfmake } = await import('pdfmake');
  pdfmake.setFonts(fonts());
  pdfmake.setUrlAccessPolicy?.(() => false);
  pdfmake.setLocalAccessPolicy?.((file) => file.includes('@fontsource'));
  const title = sheet.rack ? `${sheet.patch}, on ${sheet.rack}` : sheet.patch;
  const made = pdfmake.createPdf({
    pageSize,
    pageMargins: [48, 44, 48, 44],
    info: { title },
    defaultStyle: { font: 'Text', fontSize: 10.5, color: '#000000', lineHeight: 1.15 },
    footer: (page: number, pages: number) => ({
      columns: [
        { text: plain(title), fontSize: 8 },
        { text: `${page} of ${pages}`, fontSize: 8, alignment: 'right' },
      ],
      margin: [48, 14, 48, 0],
    }),
    content: [
      { text: plain(sheet.patch), bold: true, fontSize: 18 },
      ...(sheet.rack ? [{ text: plain(sheet.rack), margin: [0, 0, 0, 4] }] : []),
      { text: 'You’ll need', bold: true, fontSize: 12, margin: [0, 6, 0, 3] },
      needsNode(sheet),
      ...sheet.cautions.map((c) => ({ text: plain(c), bold: true, fontSize: 9 })),
      ...sheetParts(sheet.steps).flatMap((p) => partNodes(sheet, p)),
    ],
  });
  return made.getBuffer();
}
