import { ApiError } from './checks/errors';

interface Fault {
  readonly code: string;
  readonly says: string;
}

/** What SQLite and the file system call a fault, what it is, and what to do. */
const faults: readonly (readonly [pattern: RegExp, fault: Fault])[] = [
  [/SQLITE_FULL|ENOSPC|disk is full/, { code: 'disk-full', says: 'The disk is full. Free some space and save again' }],
  [
    /SQLITE_READONLY|EROFS|readonly database/,
    { code: 'read-only', says: 'The data folder is read-only. Give this user write permission' },
  ],
  [
    /SQLITE_CORRUPT|SQLITE_NOTADB|malformed|not a database/,
    {
      code: 'damaged',
      says: 'The database file is damaged. What can be read opens read-only: reload in a moment. If nothing opens, stop Fenvo, keep a copy of the folder and restore a backup',
    },
  ],
  [
    /SQLITE_BUSY|SQLITE_LOCKED|database is locked/,
    {
      code: 'locked',
      says: 'The database is locked by another program. Close any second Fenvo or database tool and try again',
    },
  ],
  [
    /SQLITE_CANTOPEN|EACCES|EPERM|ENOTDIR|EEXIST|unable to open/,
    {
      code: 'no-folder',
      says: 'The data folder can’t be opened. Check that it exists, is a folder, and that this user may access it',
    },
  ],
  [/SQLITE_IOERR|EIO/, { code: 'io', says: 'Disk read/write error. Check the disk' }],
];

/** All that an error says of itself and of what caused it. */
function textOf(error: object): string {
  const { message, code, original } = error as { message?: unknown; code?: unknown; original?: unknown };
  const cause = typeof original === 'object' && original !== null && original !== error ? textOf(original) : '';
  return [message, code, cause].filter((x) => typeof x === 'string').join(' ');
}

/** A fault of the storage as what it is; null for any other. Nothing that was acknowledged is lost by one. */
export function storageFault(error: unknown, folder: string): ApiError | null {
  if (error instanceof ApiError || typeof error !== 'object' || error === null) return null;
  const text = textOf(error);
  const found = faults.find(([pattern]) => pattern.test(text))?.[1];
  if (!found) return null;
  const lost = found.code === 'damaged' ? 'This' : 'Earlier saves are safe; this';
  const message = `${found.says} (${folder}). ${lost} change was not saved.`;
  return new ApiError(503, found.code, message, { folder });
}
