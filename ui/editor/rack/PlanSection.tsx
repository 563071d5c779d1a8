'use client';
import { channels } from '@/ui/session/channels';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { editsBetween, withNames } from '@/core';
import type { Patch, Plan, Proposal, Target } from '@/core';
import { ShortLines } from '@/ui/parts/ShortLines';
import { usePlanned } from '@/ui/parts/planning';
import type { Asked } from '@/ui/parts/planning';
import type { DeskStore } from '@/ui/session/desk';
import { ink } from '@/ui/theme/tokens';
import { withoutChain } from './chain';
import { OnRackSwitch, useOnRack } from './onRack';
import { ApplyOrPreview } from '../preview/ApplyOrPreview';
import { usePreview } from '../preview/usePreview';
import { Promised } from './Promised';
import { stagesText } from '@/ui/parts/stagesText';

interface Props {
  readonly desk: DeskStore;
  /** What is wanted at the end of the path that is shown. */
  readonly target: Target;
  /** The output that the path begins at. */
  readonly from: string;
}

/** Chains from a path's source to its end for what is wanted there, beside each other; one is taken over. */
export function PlanSection({ desk, target, from }: Props) {
  const patch = useStore(desk, (s) => s.patch);
  const [asked, setAsked] = useState(patch);
  const onRack = useOnRack();
  const { used, coming } = onRack;
  const ask = useMemo((): Asked<Plan> | null => {
    if (coming) return null;
    const { at, ...wish } = target;
    const bare = withoutChain(asked, from, at);
    return (worker) => worker.plan({ patch: bare, from, to: at, target: wish }, used);
  }, [asked, target, from, used, coming]);
  const { answer, busy, failure } = usePlanned(ask);
  return (
    <Box data-plan sx={{ mt: 1 }}>
      <OnRackSwitch {...onRack} />
      <Button onClick={() => setAsked(patch)} disabled={busy || asked === patch}>
        Refresh suggestions
      </Button>
      {(busy || coming) && <LinearProgress aria-label="Planning" sx={{ mt: 1 }} />}
      {failure && <Alert severity="error">{failure}</Alert>}
      {asked === patch && answer && <ShortLines modules={patch.modules} short={answer.short} />}
      {asked === patch &&
        answer?.proposals.map((proposal, i) => <OneProposal key={i} number={i + 1} {...{ desk, patch, proposal }} />)}
    </Box>
  );
}

interface ProposalProps {
  readonly desk: DeskStore;
  readonly patch: Patch;
  readonly proposal: Proposal;
  readonly number: number;
}

function OneProposal({ desk, patch, proposal, number }: ProposalProps) {
  const preview = usePreview(() => ({ patch: proposal.patch }));
  const { stages, reading, met, why } = proposal;
  const rack = useStore(channels, (s) => s.rack);
  return (
    <Box
      data-proposal={number}
      {...preview.area}
      sx={{ borderTop: `1px solid ${ink.line}`, py: 0.75, ...(preview.showing && { background: ink.paper }) }}
    >
      <Box sx={{ fontWeight: 700 }}>{stagesText(stages, rack)}</Box>
      <Promised reading={reading} met={met} why={withNames(proposal.patch.modules, why)} />
      <ApplyOrPreview
        preview={preview}
        label="Apply"
        onApply={() =>
          desk.getState().edit(`Apply route: ${stagesText(stages, rack)}`, editsBetween(patch, proposal.patch))
        }
      />
    </Box>
  );
}
