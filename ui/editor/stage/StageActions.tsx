'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { memo } from 'react';
import type { ReactNode } from 'react';
import { bypassStages, duplicateStages, putBack, removeStages } from '@/core';
import { AddIcon, CopyIcon, DeleteIcon, RedoIcon, SwapIcon } from '@/ui/parts/icons';
import type { DeskStore } from '@/ui/session/desk';
import { ink } from '@/ui/theme/tokens';
import type { Task } from '../commands/tasks';

interface Props {
  readonly desk: DeskStore;
  readonly id: string;
  readonly label: string;
  readonly between: boolean;
  readonly bypassed: boolean;
  /** Its first output; null where it has none. */
  readonly output: string | null;
  readonly begin: (task: Task | null) => void;
  readonly onRemoved: () => void;
}

/** What is done always speaks of the same stage. */
const same = (a: Props, b: Props): boolean =>
  a.id === b.id && a.label === b.label && a.between === b.between && a.bypassed === b.bypassed && a.output === b.output;

/** What is done with the stage as a whole, in one row. */
export const StageActions = memo(function StageActions(props: Props) {
  const { desk, id, label, between, bypassed, output, begin, onRemoved } = props;
  const { edit } = desk.getState();
  const patch = () => desk.getState().patch;
  const remove = (): void => {
    edit(`Remove ${label}`, removeStages(patch(), [id]));
    onRemoved();
  };
  return (
    <Box role="group" aria-label="Actions" sx={{ display: 'flex', my: 1, ml: -0.75 }}>
      <Action name="Replace" icon={<SwapIcon />} onClick={() => begin({ do: 'replace', id })} />
      {output !== null && <Action name="Add after" icon={<AddIcon />} onClick={() => begin({ do: 'after', output })} />}
      {between &&
        (bypassed ? (
          <Action
            name="Restore"
            icon={<RedoIcon />}
            pressed
            onClick={() => edit(`Restore ${label}`, putBack(patch(), id))}
          />
        ) : (
          <Action
            name="Bypass"
            icon={<RedoIcon />}
            pressed={false}
            onClick={() => edit(`Bypass ${label}`, bypassStages(patch(), [id]))}
          />
        ))}
      <Action
        name="Duplicate"
        icon={<CopyIcon />}
        onClick={() => edit(`Duplicate ${label}`, duplicateStages(patch(), [id]))}
      />
      <Action name="Remove" icon={<DeleteIcon />} onClick={remove} />
    </Box>
  );
}, same);

interface ActionProps {
  readonly name: string;
  readonly icon: ReactNode;
  readonly pressed?: boolean;
  readonly onClick: () => void;
}

function Action({ name, icon, pressed, onClick }: ActionProps) {
  return (
    <Button
      variant="text"
      onClick={onClick}
      aria-pressed={pressed}
      sx={{
        flexDirection: 'column',
        width: 56,
        px: 0,
        fontSize: 11,
        lineHeight: 1.3,
        color: pressed ? ink.warning : ink.softInk,
        background: 'none',
        '& svg': { fontSize: 19 },
      }}
    >
      {icon}
      {name}
    </Button>
  );
}
