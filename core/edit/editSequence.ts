import type { Patch } from '../document/types';
import { applyEdit } from './edit';
import type { Edit } from './edit';

/** Gathers edits while the patch that they make is looked at. */
export class EditSequence {
  readonly edits: Edit[] = [];

  constructor(public patch: Patch) {}

  do(...edits: readonly Edit[]): this {
    for (const edit of edits) {
      this.patch = applyEdit(this.patch, edit);
      this.edits.push(edit);
    }
    return this;
  }
}

/** An id that is free: `trim`, `trim2`, `trim3`. */
export function freeId(patch: Pick<Patch, 'modules'>, wanted: string): string {
  const taken = new Set(patch.modules.map((m) => m.id));
  const base = wanted.replace(/[^a-z0-9_-]/g, '').slice(0, 28) || 'm';
  if (!taken.has(base)) return base;
  for (let n = 2; ; n++) if (!taken.has(`${base}${n}`)) return `${base}${n}`;
}
