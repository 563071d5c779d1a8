import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useStore } from 'zustand';
import { knobPlace } from '@/core';
import { audition, playOver } from '@/ui/session/audition';
import type { DeskStore } from '@/ui/session/desk';
import { hearing, recordNow } from '@/ui/session/hearing';

interface Props {
  readonly desk: DeskStore;
  /** The knob that was turned although automation moves it. */
  readonly at: string;
  readonly onDone: () => void;
}

/** A knob that automation moves was turned: what can be done so that the turn counts. */
export function HandNotice({ desk, at, onDone }: Props) {
  const modules = useStore(desk, (s) => s.patch.modules);
  const isThere = useStore(desk, (s) => s.patch.hands.some((h) => h.at === at));
  const rests = useStore(audition, (s) => s.resting.has(at));
  const plays = useStore(hearing, (s) => s.playing);
  if (!isThere) return null;
  const name = knobPlace(modules, at);
  const remove = (): void => {
    desk.getState().edit(`Remove automation of ${name}`, [{ do: 'hand', at, hand: null }]);
    onDone();
  };
  return (
    <Alert severity="warning" data-hand-notice={at} onClose={onDone} sx={{ my: 1 }}>
      {rests
        ? `You’re playing ${name} over its automation until you stop.`
        : `${name} is automated: the automation decides, not the knob.`}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 0.5 }}>
        {plays && !rests && <Button onClick={() => playOver(at)}>Play over it</Button>}
        <Button onClick={recordNow}>Record again</Button>
        <Button onClick={remove}>Remove automation</Button>
      </Box>
    </Alert>
  );
}
