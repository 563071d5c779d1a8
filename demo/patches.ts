import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';

export interface DemoPatch {
  readonly id: string;
  readonly document: unknown;
}

const ENDING = '.fenvo.json';

/** The theatre's patches, one file each; the file's name is the patch's id. */
export function demoPatches(folder: string): DemoPatch[] {
  return readdirSync(folder)
    .filter((name) => name.endsWith(ENDING))
    .sort()
    .map((name) => ({
      id: name.slice(0, -ENDING.length),
      document: JSON.parse(readFileSync(path.join(folder, name), 'utf8')) as unknown,
    }));
}
