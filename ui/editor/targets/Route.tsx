'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { ofArrival, placeName, targetText } from '@/core';
import type { Patch, Target } from '@/core';
import { later } from '@/ui/parts/later';
import { SelectField } from '@/ui/parts/SelectField';
import type { DeskStore } from '@/ui/session/desk';
import { inspector } from '@/ui/session/inspector';
import { ink } from '@/ui/theme/tokens';
import { offeredBy } from '../macro/offered';
import { sourcesOf } from '../rack/severalEnds';

const PlanSection = later(() => import('../rack/PlanSection').then((m) => m.PlanSection));
const EndsPlanSection = later(() => import('../rack/EndsPlanSection').then((m) => m.EndsPlanSection));

/** The range that a destination without a target is planned for. */
function usualTarget(patch: Patch, shown: string): Target | null {
  const offered = offeredBy(patch).find((o) => o.end === shown);
  if (!offered) return null;
  const [a, b] = offered.figures;
  const target: Target = { at: shown, quantity: offered.quantity, low: Math.min(a, b), high: Math.max(a, b) };
  return ofArrival(target);
}

interface Props {
  readonly desk: DeskStore;
  /** The output that the path shown begins at. */
  readonly begins: string | null;
  readonly shown: string;
}

/** Routes to the destination shown: from the source of its path, from another, or from one source to several. */
export function Route({ desk, begins, shown }: Props) {
  const patch = useStore(desk, (s) => s.patch);
  const route = useStore(inspector, (s) => s.route);
  const [chosen, setChosen] = useState<string | null>(null);
  const [several, setSeveral] = useState(false);
  const [suggesting, setSuggesting] = useState(false);
  const asked = route?.to === shown ? route.from : null;
  const sources = useMemo(() => sourcesOf(patch), [patch]);
  const from = chosen ?? asked ?? begins ?? sources[0]?.[0] ?? null;
  const own = patch.targets.find((t) => t.at === shown);
  const target = useMemo(() => own ?? usualTarget(patch, shown), [own, patch, shown]);
  if (several) return <EndsPlanSection desk={desk} from={from} />;
  if (from === null) return <Box sx={{ color: ink.softInk }}>Add a source first.</Box>;
  return (
    <>
      <SelectField
        label="Source"
        value={from}
        options={sources.some(([socket]) => socket === from) ? sources : [[from, from], ...sources]}
        onChange={setChosen}
        sx={{ width: '100%' }}
      />
      {!own && target && (
        <Box sx={{ mt: 1, fontSize: 13, color: ink.softInk }}>
          {`No target yet: planned for ${targetText(patch.modules, target)}.`}
        </Box>
      )}
      {begins !== null && begins !== from && (
        <Box sx={{ mt: 1, fontSize: 13, color: ink.softInk }}>
          {`Replaces the path from ${placeName(patch.modules, begins)}.`}
        </Box>
      )}
      {target && (suggesting || asked !== null) ? (
        <PlanSection key={`${from} ${shown}`} desk={desk} target={target} from={from} />
      ) : (
        <Button disabled={!target} onClick={() => setSuggesting(true)} sx={{ mt: 1 }}>
          Suggest stages
        </Button>
      )}
      <Button onClick={() => setSeveral(true)} sx={{ mt: 1 }}>
        Route one source to several destinations
      </Button>
    </>
  );
}
