import { sheetToCsv, sheetToMarkdown } from '../core';
import type { Sheet } from '../core';
import { sheetHtml } from '../paper/sheetHtml';
import { sheetPdf } from '../paper/sheetPdf';
import type { SheetFormat } from '../wire/requests';
import { threads } from './beside/thread';
import type { Patches } from './patches';
import { instrument } from './preferences';
import type { Racks } from './racks';
import { tracesOf } from './traces';

interface Wanted {
  readonly rack: string;
  readonly measured: boolean;
  readonly format: SheetFormat;
  readonly size: 'A4' | 'LETTER';
}

const TYPES: Readonly<Record<SheetFormat, string>> = {
  json: 'application/json',
  md: 'text/markdown; charset=utf-8',
  csv: 'text/csv; charset=utf-8',
  pdf: 'application/pdf',
  html: 'text/html; charset=utf-8',
  svg: 'image/svg+xml',
};

async function written(
  sheet: Sheet,
  picture: () => Promise<string>,
  { format, size }: Wanted,
): Promise<string | Uint8Array> {
  switch (format) {
    case 'json':
      return JSON.stringify(sheet);
    case 'md':
      return sheetToMarkdown(sheet);
    case 'csv':
      return sheetToCsv(sheet);
    case 'pdf':
      return sheetPdf(sheet, size);
    case 'html':
      return sheetHtml(sheet);
    case 'svg':
      return picture();
  }
}

/** A patch's sheet in the form that is asked for; files are handed over under the patch's name. */
export async function sheetAnswer(patches: Patches, racks: Racks, id: string, wanted: Wanted): Promise<Response> {
  const { body } = await patches.get(id);
  const rack = wanted.rack === '' ? null : JSON.stringify((await racks.get(wanted.rack)).rack);
  const traces = await tracesOf(body);
  const sheet = await threads().painter.run('sheet', {
    body,
    rack,
    traces,
    measured: wanted.measured,
    meter: await instrument(),
  });
  const content = await written(sheet, () => threads().painter.run('picture', { body, traces }), wanted);
  const name = encodeURIComponent(`${sheet.patch}, sheet.${wanted.format}`);
  const file: Record<string, string> =
    wanted.format === 'json' ? {} : { 'Content-Disposition': `attachment; filename*=UTF-8''${name}` };
  const bytes = typeof content === 'string' ? content : (content as Uint8Array<ArrayBuffer>);
  return new Response(bytes, { headers: { 'Content-Type': TYPES[wanted.format], ...file } });
}
