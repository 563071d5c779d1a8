'use client';
import Box from '@mui/material/Box';
import { memo } from 'react';
import { idOf, partsOf, placeName, showNumber } from '@/core';
import type { GraphModule } from '@/core';
import { Group } from '@/ui/parts/Group';
import { later } from '@/ui/parts/later';
import type { DeskStore } from '@/ui/session/desk';
import type { Predicted } from '@/ui/session/usePrediction';
import { ink } from '@/ui/theme/tokens';
import { SpreadSection } from '../targets/SpreadSection';
import { RouteSection } from '../targets/RouteSection';
import { SolveGroup } from '../targets/SolveGroup';
import { TargetsGroup } from '../targets/TargetsGroup';

interface Props {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
  /** The socket whose path is shown. */
  readonly shown: string | null;
}

/** `Filter (VCF) · 1 V/oct (at full CV amount) · −4.0 to +6.0 V` */
function aboutOf(m: GraphModule, name: string): string {
  const end = m.kind.ends?.find((e) => e.sockets.includes(name));
  const window = end?.window(m.params);
  const range = window?.every(Number.isFinite)
    ? `${showNumber(window[0], 1, true)} to ${showNumber(window[1], 1, true)}\u00a0V`
    : null;
  return [m.kind.title, end?.says, range].filter(Boolean).join(' · ');
}

const Head = memo(function Head({ title, about }: { readonly title: string; readonly about: string }) {
  return (
    <>
      <Box component="h2" sx={{ fontSize: 17, fontWeight: 700, m: 0, overflowWrap: 'anywhere' }}>
        {title}
      </Box>
      <Box sx={{ fontSize: 13, color: ink.softInk }}>{about}</Box>
    </>
  );
});

const TooShort = later(() => import('./TooShort').then((m) => m.TooShort));

/** The destination shown: what is asked of it, the knobs for that, the route there, and how exact it is. */
export function DestinationTab({ desk, predicted, shown }: Props) {
  const { modules, patch } = predicted.graph;
  const m = shown === null ? undefined : modules.find((x) => x.id === idOf(shown));
  if (shown === null || !m)
    return (
      <>
        <Head title="No destination" about="Nothing is controlled yet." />
        <Group title="Targets">
          <Box sx={{ color: ink.softInk }}>Add a destination first, then set a target for it.</Box>
        </Group>
      </>
    );
  const lengthenTo = predicted.prediction.readings.find((r) => r.at === shown)?.lengthenTo;
  return (
    <Box data-destination={shown}>
      <Head title={placeName(patch.modules, shown)} about={aboutOf(m, partsOf(shown).name)} />
      {lengthenTo !== undefined && <TooShort seconds={lengthenTo} edit={desk.getState().edit} />}
      <TargetsGroup desk={desk} predicted={predicted} shown={shown} />
      {patch.targets.length > 0 && <SolveGroup desk={desk} />}
      <RouteSection desk={desk} predicted={predicted} shown={shown} />
      <SpreadSection desk={desk} shown={shown} />
    </Box>
  );
}
