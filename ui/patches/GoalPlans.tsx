'use client';
import Box from '@mui/material/Box';
import FormControlLabel from '@mui/material/FormControlLabel';
import LinearProgress from '@mui/material/LinearProgress';
import Radio from '@mui/material/Radio';
import RadioGroup from '@mui/material/RadioGroup';
import Switch from '@mui/material/Switch';
import { showRange } from '@/core';
import type { Plan, Proposal } from '@/core';
import { useChosenRack, useRackDocument } from '@/ui/parts/chosenRack';
import { stagesText } from '@/ui/parts/stagesText';
import type { Planned } from '@/ui/parts/planning';
import { ShortLines } from '@/ui/parts/ShortLines';
import { fonts, ink } from '@/ui/theme/tokens';

interface Props {
  readonly fault: string | null;
  readonly plans: Planned<Plan>;
  readonly picked: number;
  readonly onPick: (index: number) => void;
  readonly onRack: boolean;
  readonly onRackChange: (on: boolean) => void;
}

/** The chains that would do it, beside each other, or why there is none. */
export function GoalPlans({ fault, plans, picked, onPick, onRack, onRackChange }: Props) {
  const { racks, id } = useChosenRack();
  const { answer, busy, failure } = plans;
  const proposals = fault === null ? (answer?.proposals ?? []) : [];
  const best = proposals[picked] ?? proposals[0];
  const { rack } = useRackDocument(id);
  const titleOf = ({ stages }: Proposal): string => stagesText(stages, onRack ? rack : null);
  const name = racks.find((r) => r.id === id)?.name;
  return (
    <Box data-goal={best?.met ?? 'none'} sx={{ minHeight: 132, borderTop: `1px solid ${ink.line}`, pt: 1 }}>
      {name !== undefined && (
        <FormControlLabel
          control={<Switch checked={onRack} onChange={(e) => onRackChange(e.target.checked)} />}
          label={`Use only modules in ${name}`}
        />
      )}
      {busy && <LinearProgress aria-label="Planning" />}
      <Box role="status">
        {fault !== null && <Box sx={{ color: ink.error }}>{fault}</Box>}
        {failure && <Box sx={{ color: ink.error }}>{failure}</Box>}
        {best && !best.met && (
          <Box sx={{ color: ink.warning }}>
            This is the closest match with the destination’s own knobs at their defaults. You can adjust those in the
            editor.
          </Box>
        )}
      </Box>
      {fault === null && answer && onRack && <ShortLines modules={best?.patch.modules ?? []} short={answer.short} />}
      <RadioGroup
        aria-label="Suggestions"
        value={String(Math.min(picked, Math.max(0, proposals.length - 1)))}
        onChange={(_, next) => onPick(Number(next))}
      >
        {proposals.map((p, i) => (
          <FormControlLabel
            key={i}
            value={String(i)}
            data-proposal={i + 1}
            control={<Radio size="small" />}
            label={
              <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 1 }}>
                <span>{titleOf(p)}</span>
                {p.reading && (
                  <Box component="span" sx={{ fontFamily: fonts.numbers }}>
                    {showRange(p.reading.arrivesLow, p.reading.arrivesHigh, p.reading.unit)}
                  </Box>
                )}
              </Box>
            }
          />
        ))}
      </RadioGroup>
    </Box>
  );
}
