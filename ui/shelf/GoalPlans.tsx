'use client';
import Box from '@mui/material/Box';
import FormControlLabel from '@mui/material/FormControlLabel';
import LinearProgress from '@mui/material/LinearProgress';
import Radio from '@mui/material/Radio';
import RadioGroup from '@mui/material/RadioGroup';
import Switch from '@mui/material/Switch';
import { kindNamed, showRange } from '@/core';
import type { Plan, Proposal } from '@/core';
import { useChosenRack } from '@/ui/parts/chosenRack';
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

const titleOf = ({ stages }: Proposal): string =>
  stages.length === 0
    ? 'straight in, its own knobs set'
    : stages.map((s) => `${kindNamed(s.kind)?.title ?? s.kind}${s.rack ? ` (${s.rack})` : ''}`).join(', then ');

/** The chains that would do it, beside each other, or why there is none. */
export function GoalPlans({ fault, plans, picked, onPick, onRack, onRackChange }: Props) {
  const { racks, id } = useChosenRack();
  const { answer, busy, failure } = plans;
  const proposals = fault === null ? (answer?.proposals ?? []) : [];
  const best = proposals[picked] ?? proposals[0];
  const name = racks.find((r) => r.id === id)?.name;
  return (
    <Box data-goal={best?.met ?? 'none'} sx={{ minHeight: 132, borderTop: `1px solid ${ink.line}`, pt: 1 }}>
      {name !== undefined && (
        <FormControlLabel
          control={<Switch checked={onRack} onChange={(e) => onRackChange(e.target.checked)} />}
          label={`with what ${name} has`}
        />
      )}
      {busy && <LinearProgress aria-label="Planning" />}
      <Box role="status">
        {fault !== null && <Box sx={{ color: ink.error }}>{fault}</Box>}
        {failure && <Box sx={{ color: ink.error }}>{failure}</Box>}
        {best && !best.met && (
          <Box sx={{ color: ink.warning }}>
            That is as near as this destination comes with its own knobs at rest; turn those on the desk.
          </Box>
        )}
      </Box>
      {fault === null && answer && onRack && <ShortLines modules={best?.patch.modules ?? []} short={answer.short} />}
      <RadioGroup
        aria-label="Chains"
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
                    {showRange(p.reading.low, p.reading.high, p.reading.unit)}
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
