import type { Edit } from '@/core';

/**
 * Does edits as one named, undoable act; acts of one key in one go count as one. What `joins` belongs to the act before
 * of its key, however long ago that was.
 */
export type EditDesk = (label: string, edits: readonly Edit[], key?: string, joins?: boolean) => void;
