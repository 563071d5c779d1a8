'use client';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import LinearProgress from '@mui/material/LinearProgress';
import { useStore } from 'zustand';
import { showDb, showNumber } from '@/core';
import { fonts, ink } from '@/ui/theme/tokens';
import type { Live } from './live';
import { isSilent } from './transport';

/** Less than this of a reduction is a rounding, dB. */
const HEARD = 0.05;
/** The quietest that the meter shows, dB full scale. */
const FLOOR = -60;

const dbOf = (x: number): number | null => (x > 0 ? 20 * Math.log10(x) : null);

function clock(seconds: number): string {
  const whole = Math.floor(seconds);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}

function Figure({
  name,
  value,
  bad = false,
  id,
}: {
  readonly name: string;
  readonly value: string;
  readonly bad?: boolean;
  readonly id: string;
}) {
  return (
    <Box sx={{ fontSize: 13, color: bad ? ink.warning : ink.softInk, whiteSpace: 'nowrap' }} data-figure={id}>
      {`${name} `}
      <Box component="span" sx={{ fontFamily: fonts.numbers, color: bad ? ink.warning : ink.ink }}>
        {value}
      </Box>
    </Box>
  );
}

/**
 * How loud it is, what was held back, for how long it plays, and how the machine keeps up. Last in its bar: what comes and
 * goes moves no button away from under a hand.
 */
export function LiveFigures({ live }: { readonly live: Live }) {
  const { phase, report, meter } = useStore(live.store);
  if (isSilent(phase) || !report || !meter) return null;
  const [peak, held, rms] = [meter.peak, meter.held, meter.rms].map(dbOf) as [
    number | null,
    number | null,
    number | null,
  ];
  return (
    <Box
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        alignItems: 'center',
        columnGap: 2,
        width: { xs: 1, md: 'auto' },
      }}
    >
      <LinearProgress
        variant="determinate"
        aria-label="Level"
        value={peak === null ? 0 : Math.max(0, Math.min(100, 100 - (100 * peak) / FLOOR))}
        sx={{ width: 90, height: 8 }}
      />
      <ButtonBase title="Reset the held peak" aria-label="Reset the held peak" onClick={() => live.resetMeter()}>
        <Figure id="peak" name="Peak" value={showDb(held)} />
      </ButtonBase>
      <Figure id="rms" name="RMS" value={showDb(rms)} />
      {meter.reduction > HEARD && <Figure id="limiter" name="Limiter" value={showDb(-meter.reduction)} bad />}
      {meter.heldBack > HEARD && <Figure id="held" name="Jump limiter" value={showDb(meter.heldBack)} bad />}
      <Figure id="time" name="Time" value={clock(report.samples / report.sampleRate)} />
      <Figure id="load" name="CPU" value={`${showNumber(100 * report.load, 0)}%`} bad={report.load > 0.85} />
      <Figure id="dropouts" name="Dropouts" value={String(report.dropouts)} bad={report.dropouts > 0} />
    </Box>
  );
}
