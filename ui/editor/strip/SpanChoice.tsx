'use client';
import Box from '@mui/material/Box';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { memo } from 'react';
import { briefSeconds } from '@/core';
import type { Predicted } from '@/ui/session/usePrediction';
import { ink } from '@/ui/theme/tokens';

export type SpanName = 'whole' | 'period' | 'scope';

interface Props {
  readonly span: SpanName;
  readonly predicted: Predicted;
  readonly onSpan: (span: SpanName) => void;
}

/** What stays the same while a knob turns. */
const same = (a: Props, b: Props): boolean =>
  a.span === b.span && periodOf(a.predicted) === periodOf(b.predicted) && durationOf(a) === durationOf(b);

const durationOf = ({ predicted }: Props): number => predicted.graph.patch.settings.duration;

function periodOf({ strip, prediction }: Predicted): number | null {
  const end = strip?.frames.at(-1)?.input?.socket;
  return (end === undefined ? null : prediction.inputs[end]?.repeatsEvery) ?? null;
}

/** Which seconds the stages show: all, one period of this path, or what the scope shows. */
export const SpanChoice = memo(function SpanChoice(props: Props) {
  const { span, predicted, onSpan } = props;
  const duration = durationOf(props);
  const period = periodOf(predicted);
  const repeats = period !== null && period < duration;
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, fontSize: 13, color: ink.softInk }}>
      Time span
      <ToggleButtonGroup
        exclusive
        value={span}
        aria-label="Time span shown"
        onChange={(_, next: SpanName | null) => next && onSpan(next)}
      >
        <ToggleButton value="whole">{`Full, ${briefSeconds(duration)}`}</ToggleButton>
        <ToggleButton value="period" disabled={!repeats}>
          {repeats ? `One period, ${briefSeconds(period)}` : 'One period'}
        </ToggleButton>
        <ToggleButton value="scope">Match scope</ToggleButton>
      </ToggleButtonGroup>
    </Box>
  );
}, same);
