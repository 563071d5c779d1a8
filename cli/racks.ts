import { writeFileSync } from 'node:fs';
import { assignRack, changeOf, patchPicture, planChain, planEnds, sheetOf, sheetToCsv, sheetToMarkdown } from '../core';
import { sheetPdf } from '../paper/sheetPdf';
import type { Patch, Sheet } from '../core';
import { Refusal } from './arguments';
import type { Arguments } from './arguments';
import { readPatch, readRack, readRequest } from './documents';

/** A first file, and a rack after it where one is given. */
function pair(command: string, { files }: Arguments): readonly [string, string | undefined] {
  const [first, second, ...more] = files;
  if (first === undefined || more.length > 0) throw new Refusal([`${command} takes one file, and a rack after it`]);
  return [first, second];
}

export function assignCommand(args: Arguments): unknown {
  const [patch, rack] = pair('assign', args);
  if (rack === undefined) throw new Refusal(['assign takes a patch and a rack']);
  return assignRack(readPatch(patch), readRack(rack));
}

export function planCommand(args: Arguments): unknown {
  const [request, rack] = pair('plan', args);
  const read = readRequest(request);
  const owned = rack === undefined ? null : readRack(rack);
  return 'ends' in read ? planEnds(read, owned) : planChain(read, owned);
}

/** The steps from one patch to another, on a rack where one is given. */
export function changeCommand({ files }: Arguments): unknown {
  const [a, b, rack, ...more] = files;
  if (a === undefined || b === undefined || more.length > 0)
    throw new Refusal(['change takes two patches, and a rack after them']);
  return changeOf(readPatch(a), readPatch(b), rack === undefined ? {} : { rack: readRack(rack) });
}

function made(patch: Patch, rack: string | undefined, asMeasured: boolean): Sheet {
  if (rack === undefined && asMeasured) throw new Refusal(['--as-measured needs a rack']);
  return sheetOf(patch, rack === undefined ? {} : { rack: readRack(rack), asMeasured });
}

/** A sheet as JSON, or written as text or PDF; what is written is told. */
export async function sheetCommand(args: Arguments): Promise<unknown> {
  const [patch, rack] = pair('sheet', args);
  const { format, out } = args;
  if (format === 'pdf' && out === null) throw new Refusal(['--format pdf needs --out FILE']);
  const document = readPatch(patch);
  const sheet = made(document, rack, args.asMeasured);
  if (format === 'json' && out === null) return sheet;
  const bytes =
    format === 'pdf'
      ? await sheetPdf(sheet)
      : format === 'md'
        ? sheetToMarkdown(sheet)
        : format === 'svg'
          ? patchPicture(document)
          : format === 'csv'
            ? sheetToCsv(sheet)
            : `${JSON.stringify(sheet)}\n`;
  if (out === null) return { text: String(bytes) };
  writeFileSync(out, bytes);
  return { written: out, steps: sheet.steps.length };
}
