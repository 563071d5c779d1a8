import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import LinearProgress from '@mui/material/LinearProgress';
import { useEffect, useState } from 'react';
import { showNumber, withUnit } from '@/core';
import { readWavTraces } from '@/core/formats/wavFile';
import { tell, tellFault } from '@/ui/parts/messages';
import { benchJob } from '@/ui/parts/workerJob';
import { fonts, ink } from '@/ui/theme/tokens';
import type { BenchFile } from '@/wire/bench';
import type { OverlayAnswer } from '@/wire/benchJobs';
import { benchApi } from './benchApi';
import { OverlayChart } from './OverlayChart';
import type { OpenSession } from './useSession';

interface Props {
  readonly open: OpenSession;
  readonly file: BenchFile;
  readonly title: string;
}

async function overlayOf(open: OpenSession, file: BenchFile, fixed: boolean): Promise<OverlayAnswer | null> {
  const response = await fetch(benchApi.fileAt(file.id));
  if (!response.ok) throw new Error('The recording could not be loaded.');
  const read = readWavTraces(new Uint8Array(await response.arrayBuffer()));
  const [column] = read.ok ? read.value.columns : [];
  if (!read.ok || !column) throw new Error(read.ok ? 'The recording is empty.' : read.errors);
  const request = { at: file.at ?? '', volts: column.values, sampleRate: read.value.sampleRate, fixed };
  return benchJob((worker) => worker.layOver(open.at, request)).done;
}

interface Laid {
  readonly of: string;
  readonly answer: OverlayAnswer | null;
  readonly failure: string | null;
}

/** A recording over its prediction, with what is left between them. */
export function OverlayView({ open, file, title }: Props) {
  const [fixed, setFixed] = useState(true);
  const [laid, setLaid] = useState<Laid | null>(null);
  const of = `${file.id} ${fixed}`;
  const { at } = open;
  useEffect(() => {
    let live = true;
    overlayOf({ at } as OpenSession, file, fixed)
      .then((answer) => live && setLaid({ of, answer, failure: null }))
      .catch((error: unknown) => live && setLaid({ of, answer: null, failure: String(error) }));
    return () => {
      live = false;
    };
  }, [at, file.id, fixed]); // eslint-disable-line react-hooks/exhaustive-deps -- of a file its id is all
  const answer = laid?.of === of ? laid.answer : null;
  const accept = (): void => {
    const readings = (answer?.figures ?? []).map(({ quantity, value }) => ({ at: file.at ?? '', quantity, value }));
    open
      .add(readings)
      .then(() => tell(`${readings.length} readings added.`))
      .catch(tellFault);
  };
  return (
    <Box data-overlay={file.id}>
      <Box component="h2" sx={{ fontSize: 15, m: 0 }}>
        {title}
      </Box>
      <FormControlLabel
        control={<Checkbox checked={fixed} onChange={(e) => setFixed(e.target.checked)} />}
        label="Already in volts (scale 1, offset 0)"
      />
      {laid?.of !== of && <LinearProgress aria-label="Comparing with the prediction" />}
      {laid?.failure && <Alert severity="error">{laid.failure}</Alert>}
      {answer && (
        <>
          <OverlayChart answer={answer} />
          <Figures answer={answer} />
          {answer.figures.length > 0 && <Button onClick={accept}>Add as readings</Button>}
        </>
      )}
    </Box>
  );
}

function Figures({ answer: a }: { readonly answer: OverlayAnswer }) {
  const rows = [
    ['Starts', withUnit(showNumber((1000 * a.shift) / a.sampleRate, 1, true), 'ms'), 'after the prediction'],
    ['Scale', showNumber(a.scale, 4), ''],
    ['Offset', withUnit(showNumber(a.offset, 3, true), 'V'), ''],
    [
      'Residual',
      withUnit(showNumber(a.residualVolts, 3), 'V RMS'),
      `${showNumber(a.residualPercent, 1)}% of its movement`,
    ],
  ] as const;
  return (
    <Box component="dl" sx={{ display: 'grid', gridTemplateColumns: '80px 110px 1fr', my: 1, '& > *': { m: 0 } }}>
      {rows.map(([name, value, says]) => (
        <Box key={name} sx={{ display: 'contents' }}>
          <dt>{name}</dt>
          <Box component="dd" sx={{ m: 0, fontFamily: fonts.numbers, whiteSpace: 'nowrap' }}>
            {value}
          </Box>
          <Box component="dd" sx={{ m: 0, color: ink.softInk, fontSize: 13 }}>
            {says}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
