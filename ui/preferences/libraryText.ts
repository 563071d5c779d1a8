import type { Holdings, LibraryState } from '@/wire/library';
import { counted } from '@/ui/parts/counted';
import { dateTime } from '@/ui/parts/dates';

/** `37 patches, 3 racks and 2 recordings`: what is none is not named. */
export function heldText({ patches, racks, recordings, sessions, files }: Holdings): string {
  const parts = [
    counted(patches, 'patch', 'patches'),
    ...(racks > 0 ? [counted(racks, 'rack')] : []),
    ...(recordings > 0 ? [counted(recordings, 'recording')] : []),
    ...(sessions > 0 ? [counted(sessions, 'session')] : []),
    ...(files > 0 ? [counted(files, 'session file')] : []),
  ];
  return new Intl.ListFormat('en-GB', { type: 'conjunction' }).format(parts);
}

/** When the last backup was, and what has happened since. */
export function agoText({ lastBackup, days, saves }: Pick<LibraryState, 'lastBackup' | 'days' | 'saves'>): string {
  const since = saves === 0 ? 'nothing saved since' : `${counted(saves, 'save')} since`;
  if (lastBackup === null) return saves === 0 ? 'Never' : `Never; ${counted(saves, 'save')} so far`;
  return `${dateTime(lastBackup)}${days > 0 ? `, ${counted(days, 'day')} ago` : ''}; ${since}`;
}
