'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import { useStore } from 'zustand';
import { channelTitle, kindTitle, placeName, showVolts } from '@/core';
import type { Assignment, Patch, Rack } from '@/core';
import { MeasuredSwitch } from '@/ui/parts/MeasuredSwitch';
import { usePlanned } from '@/ui/parts/planning';
import type { Asked } from '@/ui/parts/planning';
import { channels } from '@/ui/session/channels';
import type { DeskStore } from '@/ui/session/desk';
import { ink } from '@/ui/theme/tokens';
import { RackChoice } from './RackChoice';

const labelIn = (patch: Patch, id: string): string => placeName(patch.modules, id);

/** Whether the patch can be patched with the chosen rack, what stands in, what is short; one click takes it over. */
export function Tonight({ desk }: { readonly desk: DeskStore }) {
  return (
    <>
      <RackChoice />
      <Answer desk={desk} />
    </>
  );
}

function Answer({ desk }: { readonly desk: DeskStore }) {
  const rack = useStore(channels, (s) => s.rack);
  const patch = useStore(desk, (s) => s.patch);
  const ask = useMemo(
    (): Asked<Assignment> | null => (rack ? (worker) => worker.assign(patch, rack) : null),
    [patch, rack],
  );
  const { answer, last, failure } = usePlanned(ask);
  if (failure) return <Alert severity="error">{failure}</Alert>;
  if (!rack || !last) return null;
  return (
    <>
      <MeasuredSwitch rack={rack} />
      <Found desk={desk} patch={patch} answer={last} fresh={answer !== null} rack={rack} />
    </>
  );
}

interface FoundProps {
  readonly desk: DeskStore;
  readonly patch: Patch;
  readonly answer: Assignment;
  /** It is of this very patch, so that it can be taken over. */
  readonly fresh: boolean;
  readonly rack: Rack;
}

function Found({ desk, patch, answer, fresh, rack }: FoundProps) {
  const { assigned, short, normals } = answer;
  const edits = assigned.flatMap((a) => a.edits);
  const seated = assigned.every((a) => patch.modules.find((m) => m.id === a.module)?.rack === a.rack);
  return (
    <Box data-tonight={short.length === 0} sx={{ mt: 1 }}>
      {short.length === 0 ? (
        <Alert severity="success">{`${rack.name} has everything this patch needs.`}</Alert>
      ) : (
        <Alert severity="warning">
          {short.map((s) => (
            <Box key={s.module} data-short={s.module}>
              {`No channel for ${labelIn(patch, s.module)}: ${s.why}. Alternatives: ${s.covers.map((c) => kindTitle(c)).join(', ')}.`}
            </Box>
          ))}
        </Alert>
      )}
      {assigned
        .filter((a) => a.standIn !== null)
        .map((a) => (
          <Box key={a.module} data-stand-in={a.module} sx={{ fontSize: 13, mt: 0.5 }}>
            {`${labelIn(patch, a.module)} → ${channelTitle(rack, a.rack)} (substitute: ${a.standIn ?? ''})`}
          </Box>
        ))}
      {normals.length > 0 && (
        <Box sx={{ fontSize: 13, color: ink.softInk, mt: 0.5 }}>
          {`Unpatched inputs contribute: ${normals.map((n) => `${'volts' in n ? showVolts(n.volts) : labelIn(patch, n.from)} at ${labelIn(patch, n.to)}`).join(', ')}.`}
        </Box>
      )}
      {seated ? (
        <Box sx={{ color: ink.good, mt: 1 }}>Assigned.</Box>
      ) : (
        assigned.length > 0 && (
          <Button
            color="primary"
            disabled={!fresh}
            onClick={() => desk.getState().edit(`Assign channels of ${rack.name}`, edits)}
            sx={{ mt: 1 }}
          >
            Assign these channels
          </Button>
        )
      )}
    </Box>
  );
}
