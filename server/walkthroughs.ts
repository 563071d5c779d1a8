import { parseWalkthrough, printWalkthrough } from '../core/practice';
import type { Document } from '../wire/patches';
import type { StoredWalkthrough } from '../wire/practice';
import { ApiError } from './checks/errors';
import type { Database } from './database';
import { WalkthroughRow } from './models';
import { Revised } from './revised';

/** Reads a walkthrough as the core does; what it refuses is not stored. */
function kept(json: unknown): { readonly name: string; readonly body: string } {
  const read = parseWalkthrough(json);
  if (read.ok) return { name: read.value.title, body: JSON.stringify(printWalkthrough(read.value)) };
  const [first] = read.errors;
  const place = first?.path ? `${first.path}: ` : '';
  const message = `The walkthrough was not stored. ${place}${first?.message ?? ''}`;
  throw new ApiError(400, 'bad-walkthrough', message, read.errors);
}

/** The walkthroughs that people wrote themselves. */
export class Walkthroughs extends Revised<StoredWalkthrough> {
  constructor(db: Database) {
    super(db, WalkthroughRow, 'walkthrough', ({ name: _name, ...head }, body) => ({
      ...head,
      walkthrough: JSON.parse(body) as Document,
    }));
  }

  async add(json: unknown): Promise<StoredWalkthrough> {
    return this.create(kept(json));
  }

  async replace(id: string, baseRevision: number, json: unknown): Promise<StoredWalkthrough> {
    return this.save(id, baseRevision, kept(json));
  }
}
