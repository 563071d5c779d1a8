import { ApiError } from './checks/errors';
import type { FileRequest } from '../wire/requests';

const BEGINS: Readonly<Record<FileRequest['type'], readonly number[]>> = {
  'image/jpeg': [0xff, 0xd8, 0xff],
  'image/png': [0x89, 0x50, 0x4e, 0x47],
  'audio/wav': [0x52, 0x49, 0x46, 0x46],
};

/** @throws 400 where a file is not what it says that it is. */
export function photographOrThrow({ kind, type }: FileRequest, bytes: Buffer): void {
  const fits = (kind === 'recording') === (type === 'audio/wav');
  if (!fits || !BEGINS[type].every((b, i) => bytes[i] === b)) {
    const wanted = kind === 'recording' ? 'a WAV file' : 'a JPEG or PNG image';
    throw new ApiError(400, 'bad-file', `This is not ${wanted}. Nothing was stored.`);
  }
}
