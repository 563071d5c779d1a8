'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { FileIcon } from '@/ui/parts/icons';
import { ink } from '@/ui/theme/tokens';
import { useOneFile } from './useOneFile';

interface Props {
  readonly says: string;
  /** File endings, each with its dot. */
  readonly endings: readonly string[];
  readonly onFile: (file: File) => void;
}

/** A place to drop a file, or to choose one; what its ending says is looked at by who takes it. */
export function DropZone({ says, endings, onFile }: Props) {
  const { getRootProps, getInputProps, isDragActive, open } = useOneFile(onFile);
  return (
    <Box
      {...getRootProps()}
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 1.5,
        p: 2,
        mb: 1.5,
        border: `1px dashed ${isDragActive ? ink.wanted : ink.softInk}`,
        borderRadius: 1,
        background: isDragActive ? ink.bound : 'none',
      }}
    >
      <input {...getInputProps({ style: undefined })} hidden accept={endings.join(',')} aria-label={says} data-bring />
      <Button color="primary" startIcon={<FileIcon />} onClick={open} sx={{ flexShrink: 0 }}>
        Choose a file
      </Button>
      <Box sx={{ color: ink.softInk }}>{`${says}. Or drop it here.`}</Box>
    </Box>
  );
}
