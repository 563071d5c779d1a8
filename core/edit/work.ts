import type { Patch } from '../document/types';
import { applyEdit } from './edit';
import type { Edit } from './edit';

/** Gathers edits while the patch that they make is looked at. */
export class Work {
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
