import type { Edit } from '@/core';

/** Does edits as one named, undoable act; acts of one key in one go count as one. */
export type EditDesk = (label: string, edits: readonly Edit[], key?: string) => void;
