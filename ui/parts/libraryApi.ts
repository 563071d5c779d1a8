import dayjs from 'dayjs';
import type { Holdings, LibraryState, Restored } from '@/wire/library';
import { PART } from '@/wire/sizes';
import { call, respond, send } from './api';
import { saveFile } from './files';

/** Called with the share that is there, 0..1; what it returns says whether to go on. */
type GoesOn = (share: number) => boolean;

export const libraryApi = {
  state: () => call<LibraryState>('GET', '/library'),
  restore: () => call<Restored>('POST', '/library/restore'),
  /** Goes on with what could be read of a damaged library. */
  goOn: () => call<Restored>('POST', '/library/salvaged'),
  discard: () => call<object>('DELETE', '/library/upload'),

  /** Hands a backup of the library as it is now to the browser. */
  async backUp(): Promise<void> {
    const response = await respond('POST', '/library/backup').catch((fault: Error) => {
      throw new Error(`No backup was made. ${fault.message}`);
    });
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
