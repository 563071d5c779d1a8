import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { applyEdits } from '@/core';
import type { Patch } from '@/core';
import type { Choice } from '@/core/practice';
import { Care, Level, useStopBySpace } from '@/ui/editor/live/listeningParts';
import { Live } from '@/ui/editor/live/live';
import { isSilent } from '@/ui/editor/live/transport';
import { settings } from '@/ui/parts/settings';
import { createDesk } from '@/ui/session/desk';
import { ink } from '@/ui/theme/tokens';

interface Props {
  readonly patch: Patch;
  /** Two renderings, level-matched already. */
  readonly choices: readonly Choice[];
}

/** One engine that plays the first of two renderings, with the second to go over to. */
function usePair(patch: Patch, choices: readonly Choice[]): Live {
  const [live] = useState(() => {
    const [first, second] = choices.map((c) => applyEdits(patch, c.edits ?? []));
    const here = first ?? patch;
    const start = { id: 'exercise', patch: here, saved: here, revision: 0, savedAt: '' };
    const made = new Live(createDesk(start));
    // They are as loud as each other by their pads: nothing is left to match.
    made.compareWith({ name: choices[1]?.text ?? '', patch: second ?? patch, match: null });
    return made;
  });
  useEffect(() => live.open(), [live]);
  return live;
}

/** Two renderings to hear in turn, as often as one likes; it starts quiet. */
export function EarPair({ patch, choices }: Props) {
  const live = usePair(patch, choices);
  const cared = useStore(settings, (s) => s.cared);
  const { phase, side, level, fault } = useStore(live.store);
  useStopBySpace(live);
  if (!cared) return <Care />;
  const silent = isSilent(phase);
  const hear = (which: 'here' | 'there'): void => {
    if (live.store.getState().side !== which) live.swap();
    if (silent) void live.play();
  };
  return (
    <Box role="group" aria-label="Listen" data-ear={silent ? 'silent' : side} sx={{ my: 2 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 1.5 }}>
        {(['here', 'there'] as const).map((which, i) => (
          <Button
            key={which}
            aria-pressed={!silent && side === which}
            variant={!silent && side === which ? 'contained' : 'outlined'}
            onClick={() => hear(which)}
          >
            {`Play ${choices[i]?.text.toLowerCase() ?? ''}`}
          </Button>
        ))}
        <Button disabled={silent} aria-keyshortcuts="Space" onClick={() => live.stop()}>
          Stop
        </Button>
        <Level db={level} onLevel={(db) => live.setLevel(db)} />
      </Box>
      <Box sx={{ color: ink.softInk, fontSize: 14, mt: 1 }}>
        Both play at the same level. Go to and fro as often as you like.
      </Box>
      {fault && phase !== 'idle' && <Alert severity="error">{fault}</Alert>}
    </Box>
  );
}
