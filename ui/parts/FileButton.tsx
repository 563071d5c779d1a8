'use client';
import Button from '@mui/material/Button';
import { useOneFile } from './useOneFile';

interface Props {
  /** Endings and types that are offered. */
  readonly accept: string;
  /** What the file is, for those who hear the page. */
  readonly says: string;
  readonly label?: string;
  readonly onFile: (file: File) => Promise<void>;
}

/** Brings a file in: chosen at a button, or dropped on it. */
export function FileButton({ accept, says, label = 'Import', onFile }: Props) {
  const { getInputProps, getRootProps, open } = useOneFile((file) => void onFile(file));
  return (
    <span {...getRootProps()}>
      {/* Hidden by the attribute: the policy refuses styles that a page brings along. */}
      <input {...getInputProps({ style: undefined })} hidden accept={accept} aria-label={says} />
      <Button onClick={open}>{label}</Button>
    </span>
  );
}
