'use client';
import Box from '@mui/material/Box';
import Tooltip from '@mui/material/Tooltip';
import { memo } from 'react';
import { LIMITS } from '@/core';
import type { GraphModule } from '@/core';
import { EditableName } from '@/ui/parts/EditableName';
import { ink } from '@/ui/theme/tokens';

interface Props {
  readonly id: string;
  readonly place: string;
  readonly label: string;
  readonly kind: GraphModule['kind'];
  readonly onRename: (label: string) => void;
}

const same = (a: Props, b: Props): boolean =>
  a.id === b.id && a.place === b.place && a.label === b.label && a.kind === b.kind;

/** The stage's name, and what and where it is; what it does, and its formula, on hover. */
export const StageHead = memo(function StageHead({ id, place, label, kind, onRename }: Props) {
  const does = kind.does.charAt(0).toUpperCase() + kind.does.slice(1);
  return (
    <>
      <EditableName
        key={id}
        label="Name of the stage"
        value={label}
        longest={LIMITS.label}
        size={17}
        onRename={onRename}
      />
      <Tooltip title={`${does}. Formula: ${kind.formula}`}>
        <Box tabIndex={0} sx={{ fontSize: 13, color: ink.softInk, cursor: 'help' }}>
          {`${kind.title} · ${place}`}
        </Box>
      </Tooltip>
    </>
  );
}, same);
