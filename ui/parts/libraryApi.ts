import dayjs from 'dayjs';
import type { Holdings, LibraryState, Restored } from '@/wire/library';
import { PART } from '@/wire/sizes';
import { ApiFailure, call, send } from './api';
import { saveFile } from './files';

/** Called with the share that is there, 0..1; what it returns says whether to go on. */
type GoesOn = (share: number) => boolean;

export const libraryApi = {
  state: () => call<LibraryState>('GET', '/library'),
  restore: () => call<Restored>('POST', '/library/restore'),
  discard: () => call<object>('DELETE', '/library/upload'),

  /** Hands a backup of the library as it is now to the browser. */
  async backUp(): Promise<void> {
    const response = await fetch('/api/library/backup', { method: 'POST' }).catch(() => null);
    if (!response?.ok) {
      const answer = (await response?.json().catch(() => null)) as { error?: { message?: string } } | null;
      const message = answer?.error?.message ?? 'The server isn’t responding.';
      throw new ApiFailure(response?.status ?? 0, 'no-backup', `No backup was made. ${message}`, null);
    }
    saveFile(`fenvo-${dayjs().format('YYYY-MM-DD')}.sqlite`, await response.blob());
  },

  /** Sends a backup part by part; what it holds, or null where it was given up. */
  async upload(file: File, goesOn: GoesOn): Promise<Holdings | null> {
    const parts = Math.max(1, Math.ceil(file.size / PART));
    for (let n = 0; n < parts; n++) {
      const part = file.slice(n * PART, (n + 1) * PART);
      await send('PUT', `/library/upload?at=${n * PART}`, { body: part });
      if (goesOn((n + 1) / parts)) continue;
      await libraryApi.discard();
      return null;
    }
    return call<Holdings>('GET', '/library/upload');
  },
};
