'use client';
import Box from '@mui/material/Box';
import { useMemo } from 'react';
import { placeName, socketLabel } from '@/core';
import type { GraphModule, Patch } from '@/core';
import type { EditDesk } from '@/ui/session/edit';
import type { Predicted } from '@/ui/session/usePrediction';
import { NormalFields } from './NormalFields';
import { NoiseField } from './NoiseField';
import { OhmsField } from './OhmsField';
import { outputsOf, outputsText } from './sockets';

interface Props {
  readonly module: GraphModule;
  readonly patch: Patch;
  readonly predicted: Predicted;
  readonly edit: EditDesk;
}

/** What each unpatched input carries, how each input loads, and each output's impedance. */
export function NormalsFields({ module, patch, predicted, edit }: Props) {
  const text = outputsText(predicted.graph.modules);
  const outputs = useMemo(() => outputsOf(text), [text]);
  return (
    <>
      {module.inputs.map((input) => (
        <Box key={input.socket} sx={{ pb: 1 }}>
          <Box sx={{ fontSize: 13, fontWeight: 700 }}>{socketLabel(module.kind, input.spec.name)}</Box>
          <NormalFields
            socket={input.socket}
            name={placeName(patch.modules, input.socket)}
            own={input.spec.normal}
            normal={predicted.graph.wiring.normalOf(input.socket) ?? null}
            sockets={outputs}
            edit={edit}
          />
          <OhmsField module={module.id} side="inputOhms" name={input.spec.name} patch={patch} edit={edit} />
        </Box>
      ))}
      {module.outputs.map((output) => (
        <Box key={output.socket} sx={{ pb: 1 }}>
          <Box sx={{ fontSize: 13, fontWeight: 700 }}>{socketLabel(module.kind, output.name)}</Box>
          <OhmsField module={module.id} side="outputOhms" name={output.name} patch={patch} edit={edit} />
        </Box>
      ))}
      {module.outputs.length > 0 && <NoiseField module={module} patch={patch} edit={edit} />}
    </>
  );
}
