'use client';
import { inMegabytes } from '@/wire/sizes';
import { LIMITS, parseRack } from '@/core';
import type { Rack } from '@/core';
import { FileButton } from '@/ui/parts/FileButton';
import { tell } from '@/ui/parts/messages';

/** Reads a rack's file; what is wrong with it is told, and nothing is stored. */
async function read(file: File): Promise<Rack | string> {
  if (file.size > LIMITS.bytes) return `The file is too large (limit ${inMegabytes(LIMITS.bytes)}).`;
  try {
    const result = parseRack(JSON.parse(await file.text()));
    if (result.ok) return result.value;
    return result.errors
      .slice(0, 3)
      .map((e) => `${e.path ? `${e.path}: ` : ''}${e.message}`)
      .join('; ');
  } catch (error) {
    return `Not valid JSON: ${error instanceof Error ? error.message : String(error)}`;
  }
}

/** Brings a rack in from a file. */
export function RackImport({ onImported }: { readonly onImported: (rack: Rack) => void }) {
  const take = async (file: File): Promise<void> => {
    const found = await read(file);
    if (typeof found === 'string') tell(`Couldn’t import ${file.name}. ${found}`);
    else onImported(found);
  };
  return <FileButton accept=".json,application/json" says="Rack file" onFile={take} />;
}
