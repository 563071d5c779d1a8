'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { memo, useCallback, useState } from 'react';
import type { ReactNode } from 'react';
import { idOf } from '@/core';
import type { GraphModule } from '@/core';
import { Group } from '@/ui/parts/Group';
import { later } from '@/ui/parts/later';
import type { DeskStore } from '@/ui/session/desk';
import type { Predicted } from '@/ui/session/usePrediction';
import { ink } from '@/ui/theme/tokens';

// The solver comes with the first.
const Helpers = later(() => import('./Helpers').then((m) => m.Helpers));
const HandLanes = later(() => import('../gesture/HandLanes').then((m) => m.HandLanes));

interface Props {
  readonly desk: DeskStore;
  readonly module: GraphModule;
  readonly predicted: Predicted;
  readonly children: ReactNode;
}

type Opened = 'auto-set' | 'automate';

const wordStyle = { fontSize: 13, px: 0.75, minWidth: 0 } as const;
const moreStyle = { mt: 1, pt: 1, borderTop: `1px solid ${ink.line}` } as const;

interface ActionsProps {
  readonly automated: boolean;
  readonly open: Opened | null;
  readonly onToggle: (what: Opened) => void;
}

const Actions = memo(function Actions({ automated, open, onToggle }: ActionsProps) {
  return (
    <Box sx={{ display: 'flex' }}>
      {!automated && (
        <Button
          variant="text"
          aria-expanded={open === 'automate'}
          onClick={() => onToggle('automate')}
          sx={{ ...wordStyle, color: ink.softInk }}
        >
          Automate…
        </Button>
      )}
      <Button
        variant="text"
        color="primary"
        aria-expanded={open === 'auto-set'}
        onClick={() => onToggle('auto-set')}
        sx={wordStyle}
      >
        Auto-set…
      </Button>
    </Box>
  );
});

/** The knobs and switches of a stage; what sets several of them at once, and what turns them over time. */
export function Controls({ desk, module, predicted, children }: Props) {
  const { patch } = predicted.graph;
  const { edit } = desk.getState();
  const automated = patch.hands.some((h) => idOf(h.at) === module.id);
  const [open, setOpen] = useState<Opened | null>(null);
  const toggle = useCallback((what: Opened) => setOpen((now) => (now === what ? null : what)), []);
  return (
    <Group title="Controls" action={<Actions automated={automated} open={open} onToggle={toggle} />}>
      {open === 'auto-set' && (
        <Box data-auto-set sx={moreStyle}>
          <Helpers id={module.id} patch={patch} findings={predicted.prediction.findings} edit={edit} />
        </Box>
      )}
      {children}
      {(automated || open === 'automate') && (
        <Box data-automation={module.id} sx={moreStyle}>
          <HandLanes patch={patch} edit={edit} id={module.id} />
        </Box>
      )}
    </Group>
  );
}
