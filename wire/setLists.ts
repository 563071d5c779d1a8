import type { Change, SetEntry } from '../core';
import type { CreateSetListRequest } from './requests';

/** What passes between page and server about evenings. */

export interface StoredSetList extends CreateSetListRequest {
  readonly id: string;
  readonly revision: number;
  readonly updatedAt: string;
  readonly deletedAt: string | null;
}

export interface SetListSheet {
  readonly name: string;
  readonly rack: string | null;
  readonly entries: readonly SetEntry[];
}

export interface ChangeSheet extends Change {
  readonly rack: string | null;
}
