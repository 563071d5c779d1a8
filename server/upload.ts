import { appendFileSync, createReadStream, existsSync, mkdirSync, rmSync, statSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import path from 'node:path';
import { Readable } from 'node:stream';
import type { Holdings, Restored } from '../wire/library';
import { BackupRefusal, backUp, passing, restoreBeside, verify } from './backup';
import { ApiError } from './checks/errors';
import { restoreOverDamaged } from './library';

/** Told as what the sender can do something about. */
async function refusedAs<T>(work: Promise<T>, named: string): Promise<T> {
  try {
    return await work;
  } catch (error) {
    if (!(error instanceof BackupRefusal)) throw error;
    throw new ApiError(422, 'no-backup', error.message.replace(named, 'The file'));
  }
}

/** A backup that comes in part by part, and waits to be restored: one at a time, as large as it may be. */
export class Upload {
  constructor(private readonly folder: string) {}

  private get file(): string {
    return path.join(passing(this.folder), 'upload.sqlite');
  }

  /**
   * Adds a part at its place; the first begins anew.
   *
   * @returns how many bytes are there now.
   * @throws ApiError where the part does not follow on what is there.
   */
  add(at: number, bytes: Buffer): { readonly bytes: number } {
    mkdirSync(passing(this.folder), { recursive: true });
    if (at === 0) rmSync(this.file, { force: true });
    const size = existsSync(this.file) ? statSync(this.file).size : 0;
    if (size !== at)
      throw new ApiError(409, 'out-of-place', `The upload stands at ${size} bytes, not at ${at}. Begin it anew.`);
    appendFileSync(this.file, bytes);
    return { bytes: size + bytes.length };
  }

  /** What the backup that came in holds. @throws ApiError where it is none. */
  holdings(): Promise<Holdings> {
    return refusedAs(verify(this.file), this.file);
  }

  /**
   * Puts it in the place of the library.
   *
   * @param damaged whether the library there is damaged.
   * @throws ApiError where it is no backup.
   */
  restore(damaged = false): Promise<Restored> {
    const restored = damaged ? restoreOverDamaged(this.file) : restoreBeside(this.file, this.folder);
    return refusedAs(restored, this.file).then((done) => (this.remove(), done));
  }

  remove(): void {
    rmSync(this.file, { force: true });
  }
}

/** A backup of a folder's library as it is now, to be fetched once. */
export async function download(
  folder: string,
): Promise<{ readonly bytes: number; readonly stream: ReadableStream<Uint8Array> }> {
  const file = path.join(passing(folder), `download-${crypto.randomUUID()}.sqlite`);
  const { bytes } = await backUp(folder, file);
  const source = createReadStream(file);
  source.on('close', () => void rm(file, { force: true }));
  return { bytes, stream: Readable.toWeb(source) as ReadableStream<Uint8Array> };
}
