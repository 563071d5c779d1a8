'use client';
import Button from '@mui/material/Button';
import { useRef, useState } from 'react';
import type { RefObject } from 'react';
import { ActionMenu } from '@/ui/parts/ActionMenu';
import { DownloadIcon } from '@/ui/parts/icons';
import { tellFault } from '@/ui/parts/messages';
import type { Trace } from './view';

const WAYS = [
  ['csv', 'CSV, volts'],
  ['wav', 'WAV, 1.0 is 10 V'],
  ['svg', 'picture, SVG'],
  ['png', 'picture, PNG'],
] as const;

interface Props {
  readonly name: string;
  readonly traces: readonly Trace[];
  readonly sampleRate: number;
  readonly picture: RefObject<HTMLDivElement | null>;
}

/** The traces as files. */
export function SaveMenu({ name, traces, sampleRate, picture }: Props) {
  const button = useRef<HTMLButtonElement>(null);
  const [open, setOpen] = useState(false);
  const save = async (as: (typeof WAYS)[number][0]): Promise<void> => {
    const files = await import('./exports');
    const svg = picture.current?.querySelector('svg');
    if (as === 'csv') files.saveCsv(name, traces, sampleRate);
    else if (as === 'wav') await files.saveWav(name, traces, sampleRate);
    else if (svg && as === 'svg') files.saveSvg(name, svg);
    else if (svg) await files.savePng(name, svg);
  };
  return (
    <>
      <Button
        ref={button}
        aria-haspopup="menu"
        aria-label="Export traces"
        startIcon={<DownloadIcon />}
        onClick={() => setOpen(true)}
      >
        Export
      </Button>
      <ActionMenu
        anchor={() => button.current}
        open={open}
        onClose={() => setOpen(false)}
        entries={WAYS.map(([as, says]) => [says, () => void save(as).catch(tellFault)] as const)}
      />
    </>
  );
}
