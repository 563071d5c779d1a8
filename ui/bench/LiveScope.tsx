import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import { useEffect, useMemo, useRef, useState } from 'react';
import { briefSeconds, showNumber, withUnit } from '@/core';
import { fonts, ink } from '@/ui/theme/tokens';
import type { PredictedTrace } from '@/wire/benchJobs';
import type { Capture } from './capture';
import { inStep, pathOf, predictedNow } from './liveTrace';
import type { InStep, Ruler } from './liveTrace';
import type { InputScale } from './scale';

interface Props {
  readonly capture: Capture;
  readonly scale: InputScale | null;
  readonly seconds: number;
  readonly predicted: PredictedTrace | null;
}

const SIZE = { width: 480, height: 200 } as const;
/** How often the trace is brought in step with its prediction, milliseconds. */
const STEP_EVERY = 1500;

function rulerOf(scale: InputScale | null, predicted: PredictedTrace | null): Ruler {
  if (!scale) return { low: -1, high: 1 };
  let [low, high] = [Infinity, -Infinity];
  for (const v of predicted?.volts ?? []) [low, high] = [Math.min(low, v), Math.max(high, v)];
  if (!(high > low)) [low, high] = [(low === Infinity ? 0 : low) - 1, (high === -Infinity ? 0 : high) + 1];
  const middle = scale.acCoupled ? (low + high) / 2 : 0;
  const room = 0.25 * (high - low);
  return { low: low - room - middle, high: high + room - middle };
}

/** The running trace over its prediction; drawn past React, as often as the screen shows a frame. */
export function LiveScope({ capture, scale, seconds, predicted }: Props) {
  const trace = useRef<SVGPathElement>(null);
  const below = useRef<SVGPathElement>(null);
  const told = useRef<HTMLDivElement>(null);
  const [lost, setLost] = useState(0);
  const ruler = useMemo(() => rulerOf(scale, predicted), [scale, predicted]);
  useEffect(() => {
    let frame = 0;
    let step: InStep | null = null;
    let stepped = 0;
    const draw = (now: number): void => {
      frame = requestAnimationFrame(draw);
      const heard = capture.last(seconds);
      setLost(capture.lostSeconds);
      trace.current?.setAttribute('d', pathOf(heard, scale?.volts ?? 1, ruler, SIZE));
      if (told.current) told.current.textContent = levelText(heard, scale);
      if (!scale || !predicted) return;
      if (now - stepped > STEP_EVERY) {
        stepped = now;
        step = inStep(capture, seconds, scale, predicted);
      }
      if (step)
        below.current?.setAttribute('d', pathOf(predictedNow(predicted, step, capture, seconds), 1, ruler, SIZE));
    };
    frame = requestAnimationFrame(draw);
    return () => cancelAnimationFrame(frame);
  }, [capture, scale, seconds, predicted, ruler]);
  const zero = SIZE.height * (1 + ruler.low / (ruler.high - ruler.low));
  return (
    <Box>
      <Box sx={{ display: 'flex', gap: 2, fontSize: 13 }}>
        <Box sx={{ color: ink.trace }}>— input</Box>
        {predicted?.repeatsEvery != null && scale && <Box sx={{ color: ink.wanted }}>- - predicted</Box>}
        <Box sx={{ flex: 1 }} />
        <Box ref={told} sx={{ fontFamily: fonts.numbers }} data-level />
      </Box>
      <svg viewBox={`0 0 ${SIZE.width} ${SIZE.height}`} width="100%" role="img" aria-label="The input, volts over time">
        <line x1={0} x2={SIZE.width} y1={zero} y2={zero} stroke={ink.line} />
        <path ref={below} fill="none" stroke={ink.wanted} strokeWidth={1.5} strokeDasharray="5 4" />
        <path ref={trace} fill="none" stroke={ink.trace} strokeWidth={1.5} />
      </svg>
      {lost > 0 && (
        <Alert severity="warning" data-lost={lost}>
          Dropouts: {briefSeconds(lost)} of the input so far. Close what else runs here; a reading over a dropout can be
          wrong.
        </Alert>
      )}
    </Box>
  );
}

/** What the input is now, in a line: lowest, highest and mean, or of one that blocks DC its peak to peak. */
function levelText(heard: Float32Array, scale: InputScale | null): string {
  if (heard.length === 0) return '';
  let [low, high, sum] = [Infinity, -Infinity, 0];
  for (const v of heard) {
    [low, high] = [Math.min(low, v), Math.max(high, v)];
    sum += v;
  }
  if (!scale) return `peak ${showNumber(100 * Math.max(Math.abs(low), Math.abs(high)), 0)}% of full scale`;
  const [a, b] = scale.volts < 0 ? [high * scale.volts, low * scale.volts] : [low * scale.volts, high * scale.volts];
  if (scale.acCoupled) return `${withUnit(showNumber(b - a, 2), 'V')} peak to peak`;
  const mean = (sum / heard.length) * scale.volts;
  return `${showNumber(a, 2)} to ${withUnit(showNumber(b, 2), 'V')}, mean ${withUnit(showNumber(mean, 2), 'V')}`;
}
