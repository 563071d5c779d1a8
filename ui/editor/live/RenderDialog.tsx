'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import LinearProgress from '@mui/material/LinearProgress';
import { useRef, useState } from 'react';
import { useStore } from 'zustand';
import { showDb, showNumber } from '@/core';
import { RENDER } from '@/core/live/renderLimits';
import type { RenderBits } from '@/core/live/renderLimits';
import { saveFile } from '@/ui/parts/files';
import { listenJob } from '@/ui/parts/workerJob';
import { tell } from '@/ui/parts/messages';
import { QuantityField } from '@/ui/parts/QuantityField';
import { SelectField } from '@/ui/parts/SelectField';
import { JobCancelled } from '@/ui/parts/workerJob';
import type { RenderProps } from './renderProps';

type What = 'ears' | 'pins';

const BITS: Readonly<Record<RenderBits, string>> = {
  '16': '16 bit, dithered',
  '24': '24 bit',
  '32f': '32-bit float',
};

interface Wish {
  readonly what: What;
  readonly seconds: number;
  readonly rate: string;
  readonly bits: RenderBits;
}

interface Running {
  readonly share: number;
  readonly cancel: () => void;
}

/** What is heard, as a WAV file of any length. */
export function RenderDialog({ live, pins, onClose }: RenderProps & { readonly onClose: () => void }) {
  const [wish, setWish] = useState<Wish>({ what: 'ears', seconds: 30, rate: '48000', bits: '24' });
  const { what, seconds, rate, bits } = wish;
  const there = useStore(live.store, (s) => s.other !== null && s.side === 'there');
  const [running, setRunning] = useState<Running | null>(null);
  const [fault, setFault] = useState('');
  const open = useRef(true);
  const close = (): void => {
    running?.cancel();
    open.current = false;
    onClose();
  };
  const start = (): void => {
    const { patch, heard } = live.toFile();
    if (what === 'ears' && !heard) return setFault('This patch makes no sound yet.');
    const of = what === 'ears' && heard ? { ...heard.ears } : pins;
    const played = what === 'ears' && heard ? heard.patch : patch;
    setFault('');
    const job = listenJob(
      (worker) => worker.render({ patch: played, of, seconds, sampleRate: Number(rate), bits }),
      (share) => setRunning((r) => r && { ...r, share }),
    );
    setRunning({ share: 0, cancel: job.cancel });
    job.done
      .then(({ file, over, peak }) => {
        saveFile(`${patch.name}.wav`, file);
        const loud = `${showDb(peak > 0 ? 20 * Math.log10(peak) : null)} at its loudest`;
        tell(over > 0 && bits !== '32f' ? `Saved, but ${over} samples clipped. Peak ${loud}.` : `Saved. Peak ${loud}.`);
        if (open.current) onClose();
      })
      .catch((error: unknown) => {
        setRunning(null);
        if (!(error instanceof JobCancelled)) setFault(error instanceof Error ? error.message : String(error));
      });
  };
  return (
    <Dialog open onClose={close} aria-labelledby="render-title" maxWidth="xs" fullWidth>
      <DialogTitle id="render-title">Export audio (WAV)</DialogTitle>
      <DialogContent>
        <Fields {...{ wish, setWish, pins: pins.length }} />
        {there && <p>This exports the other side of the comparison, as it is heard now.</p>}
        <p>Full scale is 10 V. DC is removed from the monitor output; the listening level is not applied.</p>
        {running && <LinearProgress variant="determinate" value={100 * running.share} aria-label="Rendering" />}
        {fault && <Alert severity="error">{fault}</Alert>}
      </DialogContent>
      <DialogActions>
        <Button onClick={close}>{running ? 'Cancel' : 'Close'}</Button>
        <Button color="primary" disabled={running !== null || (what === 'pins' && pins.length === 0)} onClick={start}>
          Save
        </Button>
      </DialogActions>
    </Dialog>
  );
}

interface FieldsProps {
  readonly wish: Wish;
  readonly setWish: (wish: Wish) => void;
  readonly pins: number;
}

function Fields({ wish, setWish, pins }: FieldsProps) {
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, alignItems: 'center', pt: 0.5 }}>
      <SelectField
        label="Signal"
        value={wish.what}
        options={[
          ['ears', 'Monitor output (stereo)'],
          ['pins', `Pinned signals (${pins} channels)`],
        ]}
        onChange={(what) => setWish({ ...wish, what })}
      />
      <QuantityField
        label="Length"
        unit="s"
        value={wish.seconds}
        min={0.1}
        max={RENDER.longest}
        width={120}
        onChange={(seconds) => setWish({ ...wish, seconds })}
      />
      <SelectField
        label="Rate"
        value={wish.rate}
        options={RENDER.rates.map((r) => [String(r), `${showNumber(r / 1000, 1)} kHz`] as const)}
        onChange={(rate) => setWish({ ...wish, rate })}
      />
      <SelectField
        label="Bit depth"
        value={wish.bits}
        options={RENDER.bits.map((b) => [b, BITS[b]] as const)}
        onChange={(bits) => setWish({ ...wish, bits })}
      />
    </Box>
  );
}
