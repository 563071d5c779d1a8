import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';

export interface DemoPatch {
  readonly id: string;
  readonly document: unknown;
}

/** The documents of a folder, one file each; the file's name is the document's id. */
function documents(folder: string, ending: string): DemoPatch[] {
  return readdirSync(folder)
    .filter((name) => name.endsWith(ending))
    .sort()
    .map((name) => ({
      id: name.slice(0, -ending.length),
      document: JSON.parse(readFileSync(path.join(folder, name), 'utf8')) as unknown,
    }));
}

/** The theatre's patches. */
export const demoPatches = (folder: string): DemoPatch[] => documents(folder, '.fenvo.json');

/** The theatre's racks. */
export const demoRacks = (folder: string): DemoPatch[] => documents(folder, '.fenvo-rack.json');
