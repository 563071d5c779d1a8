'use client';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { DownloadIcon } from '@/ui/parts/icons';
import { later } from '@/ui/parts/later';
import type { RenderProps } from './renderProps';

const RenderDialog = later(() => import('./RenderDialog').then((m) => m.RenderDialog));

/** What is heard, or what is pinned, as a file. */
export function RenderButton(props: RenderProps) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button startIcon={<DownloadIcon />} onClick={() => setOpen(true)}>
        Export audio
      </Button>
      {open && <RenderDialog {...props} onClose={() => setOpen(false)} />}
    </>
  );
}
