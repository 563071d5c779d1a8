'use client';
import Button from '@mui/material/Button';
import { useStore } from 'zustand';
import { DownloadIcon } from '@/ui/parts/icons';
import { later } from '@/ui/parts/later';
import { hearing, openSound } from '@/ui/session/hearing';
import type { RenderProps } from './renderProps';

const RenderDialog = later(() => import('./RenderDialog').then((m) => m.RenderDialog));

/** What is heard, or what is pinned, as a file. */
export function RenderButton(props: RenderProps) {
  const open = useStore(hearing, (s) => s.parts.has('export'));
  return (
    <>
      <Button startIcon={<DownloadIcon />} onClick={() => openSound('export')}>
        Export audio
      </Button>
      {open && <RenderDialog {...props} onClose={() => openSound('export', false)} />}
    </>
  );
}
