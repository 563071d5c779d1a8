'use client';
import Box from '@mui/material/Box';
import type { ReactNode } from 'react';
import { useStore } from 'zustand';
import type { GraphModule } from '@/core';
import { later } from '@/ui/parts/later';
import { Section } from '@/ui/parts/Section';
import { channels } from '@/ui/session/channels';
import type { DeskStore } from '@/ui/session/desk';
import type { Predicted } from '@/ui/session/usePrediction';
import { headingStyle } from '@/ui/theme/tokens';

const Seat = later(() => import('../rack/Seat').then((m) => m.Seat));
const NormalsFields = later(() => import('./NormalsFields').then((m) => m.NormalsFields));

interface Props {
  readonly desk: DeskStore;
  readonly module: GraphModule;
  readonly predicted: Predicted;
  /** The fields of its ranges, jumpers and switches. */
  readonly ranges: readonly ReactNode[];
}

function Part({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <Box sx={{ pb: 1.5 }}>
      <Box component="h4" sx={{ ...headingStyle, mb: 0.5 }}>
        {title}
      </Box>
      {children}
    </Box>
  );
}

/** The hardware that a stage is: its channel in the rack, its ranges, its normals and impedances. */
export function HardwareSection({ desk, module, predicted, ranges }: Props) {
  const { id, label, inputs, outputs } = module;
  const { patch } = predicted.graph;
  const { edit } = desk.getState();
  const fault = useStore(channels, (s) => s.faults.some((f) => f.module === id));
  return (
    <Section id="hardware" title={fault ? 'Hardware: settings not available' : 'Hardware'} open={fault}>
      <Part title="Rack channel">
        <Seat id={id} label={label} patch={patch} edit={edit} />
      </Part>
      {ranges.length > 0 && <Part title="Ranges and hardware">{ranges}</Part>}
      {inputs.length + outputs.length > 0 && (
        <Part title="Normalling and impedance">
          <NormalsFields module={module} patch={patch} predicted={predicted} edit={edit} />
        </Part>
      )}
    </Section>
  );
}
