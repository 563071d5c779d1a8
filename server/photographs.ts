import { ApiError } from './checks/errors';
import type { FileRequest } from '../wire/requests';

const BEGINS: Readonly<Record<FileRequest['type'], readonly number[]>> = {
  'image/jpeg': [0xff, 0xd8, 0xff],
  'image/png': [0x89, 0x50, 0x4e, 0x47],
  'audio/wav': [0x52, 0x49, 0x46, 0x46],
};

const KIND_OF: Readonly<Record<FileRequest['type'], FileRequest['kind']>> = {
  'image/jpeg': 'photograph',
  'image/png': 'photograph',
  'audio/wav': 'recording',
};
const WANTED: Readonly<Record<FileRequest['kind'], string>> = {
  photograph: 'a JPEG or PNG image',
  recording: 'a WAV file',
};

/** @throws 400 where a file is not what it says that it is. */
export function photographOrThrow({ kind, type }: FileRequest, bytes: Buffer): void {
  const fits = KIND_OF[type] === kind;
  if (!fits || !BEGINS[type].every((b, i) => bytes[i] === b)) {
    throw new ApiError(400, 'bad-file', `This is not ${WANTED[kind]}. Nothing was stored.`);
  }
}
