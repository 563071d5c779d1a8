'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { useStore } from 'zustand';
import type { GraphModule } from '@/core';
import { setSetting, settings } from '@/ui/parts/settings';
import { ink } from '@/ui/theme/tokens';
import type { Task } from '../commands/tasks';
import type { Predicted } from '@/ui/session/usePrediction';

interface GuideStep {
  readonly says: string;
  readonly done: (p: Predicted) => boolean;
  readonly button?: { readonly label: string; readonly task: (p: Predicted) => Task };
}

const firstFrame = (p: Predicted): string => p.strip?.frames[0]?.input?.socket ?? '';
const endInput = (p: Predicted): string => p.strip?.frames.at(-1)?.input?.socket ?? '';

/** The knobs that make a stage's signal larger or smaller. */
const scaling = ({ kind, params }: GraphModule): readonly string[] =>
  kind.room === 'between' ? (kind.panel?.scaledBy?.(params) ?? []) : [];
const isTurned = (m: GraphModule): boolean =>
  scaling(m).some((name) => m.params[name] !== m.kind.params[name]?.default);

/** The order in which a modulation is planned by hand. */
const steps: readonly GuideStep[] = [
  {
    says: 'Start with the destination: what do you want to control? A filter’s cutoff, say.',
    done: (p) => p.strip !== null,
    button: { label: 'Choose a destination', task: () => ({ do: 'end' }) },
  },
  {
    says: 'Choose a source. An LFO swings from −5 V to +5 V by default.',
    done: (p) => (p.strip?.frames.length ?? 0) > 1,
    button: { label: 'Choose the source', task: (p) => ({ do: 'feed', socket: firstFrame(p) }) },
  },
  {
    says: 'The band in each stage is its guaranteed voltage range. Add a stage between: scale and offset suits most patches.',
    done: (p) => (p.strip?.frames.length ?? 0) > 2,
    button: { label: 'Insert a stage', task: (p) => ({ do: 'insert', socket: endInput(p) }) },
  },
  {
    says: 'Select the new stage and turn its knobs. Watch the destination’s reading at the left, in its own unit.',
    done: (p) => !p.graph.modules.some((m) => scaling(m).length > 0) || p.graph.modules.some(isTurned),
  },
  {
    says: 'That’s it. Problems appear under Issues, at the right, each with a suggested fix. Press ? for shortcuts and a glossary.',
    done: () => false,
  },
];

/** The first patch, step by step; it goes on by itself as the steps are done, and can be skipped at any time. */
export function Guide({ predicted, begin }: { predicted: Predicted; begin: (task: Task | null) => void }) {
  const guide = useStore(settings, (s) => s.guide);
  // By itself it only comes to a desk that was opened empty.
  const [fresh] = useState(predicted.graph.modules.length === 0);
  if (guide === 'off' || (guide === 'new' && !fresh)) return null;
  const at = steps.findIndex((step) => !step.done(predicted));
  const step = steps[at];
  if (!step) return null;
  return (
    <Box
      component="section"
      aria-label="First steps"
      sx={{
        position: 'fixed',
        left: { xs: 8, md: 252 },
        bottom: 12,
        width: { xs: 'calc(100% - 16px)', md: 400 },
        p: 1.75,
        background: ink.raised,
        border: `1px solid ${ink.wanted}`,
        borderRadius: 1,
        zIndex: 5,
      }}
    >
      <Box
        sx={{ fontSize: 12, fontWeight: 700, color: ink.softInk }}
      >{`First steps, ${at + 1} of ${steps.length}`}</Box>
      <Box role="status" sx={{ my: 0.5 }}>
        {step.says}
      </Box>
      <Box sx={{ display: 'flex', gap: 1 }}>
        {step.button && (
          <Button color="primary" onClick={() => begin(step.button?.task(predicted) ?? null)}>
            {step.button.label}
          </Button>
        )}
        <Button onClick={() => setSetting('guide', 'off')}>{at === steps.length - 1 ? 'Done' : 'Skip the tour'}</Button>
      </Box>
    </Box>
  );
}
