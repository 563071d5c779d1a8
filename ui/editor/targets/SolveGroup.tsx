'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { memo, useState } from 'react';
import { useStore } from 'zustand';
import { knobPlace } from '@/core';
import type { SolveAnswer } from '@/core';
import { Group } from '@/ui/parts/Group';
import { later } from '@/ui/parts/later';
import type { DeskStore } from '@/ui/session/desk';
import { useSolving } from '@/ui/session/solving';

const Answers = later(() => import('./Answers').then((m) => m.Answers));
const Looking = later(() => import('./Looking').then((m) => m.Looking));

const optionStyle = { display: 'flex', mr: 0, '& .MuiFormControlLabel-label': { fontSize: 13 } } as const;

/** Asks for the knobs that meet all targets; with the targets held, a knob that is turned takes the others along. */
export const SolveGroup = memo(function SolveGroup({ desk }: { readonly desk: DeskStore }) {
  const solving = useSolving();
  const { answered, busy, failure, hold, live, progress } = useStore(solving);
  const current = useStore(desk, (s) => answered?.patch === s.patch);
  const [jumpers, setJumpers] = useState(false);
  const { solve, cancel, setHold } = solving.getState();
  const { edit } = desk.getState();
  return (
    <Group title="Solve">
      {busy === 'solve' ? (
        <Button onClick={cancel}>Cancel</Button>
      ) : (
        <Button color="primary" onClick={() => solve(jumpers)}>
          Solve for knob settings
        </Button>
      )}
      <FormControlLabel
        sx={optionStyle}
        control={<Checkbox checked={jumpers} onChange={(e) => setJumpers(e.target.checked)} sx={{ p: 0.5 }} />}
        label="Allow jumper and switch changes"
      />
      <FormControlLabel
        sx={optionStyle}
        control={<Checkbox checked={hold} onChange={(e) => setHold(e.target.checked)} sx={{ p: 0.5 }} />}
        label="Keep targets met while I turn a knob"
      />
      {busy === 'solve' && (
        <Box role="status">
          Solving…
          <Looking progress={progress} />
        </Box>
      )}
      {failure && <Alert severity="error">{failure}</Alert>}
      {live && !live.feasible && <RunsOut limits={live.limits} desk={desk} />}
      {current && answered && <Answers patch={answered.patch} answer={answered.answer} edit={edit} />}
    </Group>
  );
});

/** Under a moving hand: what cannot follow. */
function RunsOut({ limits, desk }: { readonly limits: SolveAnswer['limits']; readonly desk: DeskStore }) {
  const modules = useStore(desk, (s) => s.patch.modules);
  const names = limits.map((l) => knobPlace(modules, l.at)).join(', ');
  return (
    <Alert severity="warning" data-runs-out>
      {names ? `${names} can’t follow: it is at the end of its travel.` : 'The unlocked knobs can’t follow.'}
    </Alert>
  );
}
