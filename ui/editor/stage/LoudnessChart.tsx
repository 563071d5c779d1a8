'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useEffect, useState } from 'react';
import { CartesianGrid, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { showDb, showNumber } from '@/core';
import type { Patch } from '@/core';
import type { LoudnessOver } from '@/core/answers/loudnessVariants';
import { PlayIcon } from '@/ui/parts/icons';
import { listenJob } from '@/ui/parts/workerJob';
import { hear } from '@/ui/session/hearing';
import { fonts, ink } from '@/ui/theme/tokens';

/** How long an edit is waited for, milliseconds. */
const QUIET = 300;
const DASHES = ['', '6 3', '2 3', '8 3 2 3'] as const;
const figures = { fontFamily: fonts.numbers, fontSize: 11, fill: ink.ink } as const;

type Answer =
  { readonly of: Patch; readonly found: readonly LoudnessOver[] } | { readonly of: Patch; readonly fault: string };

function useLoudness(id: string, patch: Patch): Answer | null {
  const [answer, setAnswer] = useState<Answer | null>(null);
  useEffect(() => {
    let cancel = (): void => undefined;
    const timer = setTimeout(() => {
      const job = listenJob((worker) => worker.loudnessVariants(patch, id));
      cancel = job.cancel;
      job.done
        .then((found) => setAnswer({ of: patch, found }))
        .catch((error: unknown) => setAnswer({ of: patch, fault: String(error) }));
    }, QUIET);
    return () => {
      clearTimeout(timer);
      cancel();
    };
  }, [id, patch]);
  return answer;
}

/** The four ways beside each other, dB over time, each to be heard. */
export function LoudnessChart({ id, patch }: { readonly id: string; readonly patch: Patch }) {
  const answer = useLoudness(id, patch);
  if (!answer) return <LinearProgress aria-label="Calculating levels" />;
  if ('fault' in answer) return <Alert severity="error">{answer.fault}</Alert>;
  const { found } = answer;
  const times = found[0]?.points ?? [];
  const data = times.map(({ t }, i) => ({
    t,
    ...Object.fromEntries(found.map((variant, j) => [`s${j}`, variant.points[i]?.db ?? null])),
  }));
  return (
    <Box data-loudness={id}>
      <Box role="img" aria-label={found.map(told).join('; ')} sx={{ height: 170 }}>
        <ResponsiveContainer>
          <LineChart data={data} margin={{ left: 0, right: 8, top: 8, bottom: 0 }}>
            <CartesianGrid stroke={ink.line} />
            <XAxis
              type="number"
              dataKey="t"
              domain={[0, 'dataMax']}
              tick={figures}
              tickFormatter={(t: number) => showNumber(t, 1)}
              unit="&#8239;s"
            />
            <YAxis
              domain={[-60, 0]}
              allowDataOverflow
              tick={figures}
              width={52}
              tickFormatter={(v: number) => showNumber(v, 0)}
              unit="&#8239;dB"
            />
            {found.map((variant, j) => (
              <Line
                key={variant.name}
                dataKey={`s${j}`}
                stroke={j % 2 === 0 ? ink.trace : ink.wanted}
                strokeDasharray={DASHES[j]}
                dot={false}
                isAnimationActive={false}
              />
            ))}
          </LineChart>
        </ResponsiveContainer>
      </Box>
      {found.map((variant, j) => (
        <LoudnessVariant key={variant.name} variant={variant} index={j} />
      ))}
    </Box>
  );
}

/** How long a variant stays within 20 dB of its loudest, in words. */
function told({ name, points }: LoudnessOver): string {
  const loudest = points.reduce<number>((m, p) => Math.max(m, p.db ?? -Infinity), -Infinity);
  const near = points.filter((p) => p.db !== null && p.db > loudest - 20).length / Math.max(1, points.length);
  return `${name}: peaks at ${showDb(Number.isFinite(loudest) ? loudest : null)}, within 20\u00a0dB of peak for ${showNumber(100 * near, 0)}% of the time`;
}

function LoudnessVariant({ variant, index }: { readonly variant: LoudnessOver; readonly index: number }) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, fontSize: 13, py: 0.25 }} data-loudness={variant.name}>
      <svg width={26} height={8} aria-hidden>
        <line
          x1={0}
          x2={26}
          y1={4}
          y2={4}
          stroke={index % 2 === 0 ? ink.trace : ink.wanted}
          strokeWidth={2}
          strokeDasharray={DASHES[index]}
        />
      </svg>
      <Box sx={{ flex: 1, minWidth: 0 }}>{told(variant)}</Box>
      <Button
        aria-label={`Listen to ${variant.name}`}
        startIcon={<PlayIcon />}
        onClick={() => hear(variant.name, variant.patch)}
      >
        Listen
      </Button>
    </Box>
  );
}
