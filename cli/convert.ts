import { readFileSync, writeFileSync } from 'node:fs';
import { parsePatch, printPatch } from '../core';
import type { Patch, Result } from '../core';
import { patchOfDot, patchToDot } from '../core/formats/dot';
import { packTables, unpackTables } from '../core/formats/tables';
import { Refusal } from './arguments';
import type { Arguments } from './arguments';
import { must, readJson } from './documents';

/** Reads a patch of each form by its file's ending, and writes it. */

const endingOf = (file: string): string => /\.([a-z]+)$/i.exec(file)?.[1]?.toLowerCase() ?? '';

function told(file: string, read: Result<Patch, string[]> | null): Patch {
  if (read?.ok) return read.value;
  throw new Refusal((read?.errors ?? ['holds no tables of a patch']).map((error) => `${file}: ${error}`));
}

function readAny(file: string): Patch {
  switch (endingOf(file)) {
    case 'json':
      return must(file, parsePatch(readJson(file)));
    case 'dot':
    case 'gv':
      return told(file, patchOfDot(readFileSync(file, 'utf8')));
    case 'zip':
      return told(file, unpackTables(readFileSync(file)));
    default:
      throw new Refusal([`${file}: unsupported file type; expected .json, .dot, .gv or .zip`]);
  }
}

function writeAny(file: string, patch: Patch): void {
  switch (endingOf(file)) {
    case 'json':
      return writeFileSync(file, `${JSON.stringify(printPatch(patch), null, 2)}\n`);
    case 'dot':
    case 'gv':
      return writeFileSync(file, patchToDot(patch));
    case 'zip':
      return writeFileSync(file, packTables(patch));
    default:
      throw new Refusal([`${file}: unsupported file type; expected .json, .dot, .gv or .zip`]);
  }
}

/** A patch from one form into another. */
export function convertCommand({ files }: Arguments): unknown {
  const [from, to, ...more] = files;
  if (from === undefined || to === undefined || more.length > 0) throw new Refusal(['expected: convert FROM TO']);
  const patch = readAny(from);
  writeAny(to, patch);
  return { ok: true, name: patch.name, modules: patch.modules.length, file: to };
}
