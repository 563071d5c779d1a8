'use client';
import Button from '@mui/material/Button';
import { useState } from 'react';
import type { GesturePoint, GraphModule, ParamValue } from '@/core';
import { later } from '@/ui/parts/later';

const GestureDialog = later(() => import('./GestureDialog').then((m) => m.GestureDialog));

interface Props {
  readonly module: GraphModule;
  readonly duration: number;
  readonly set: (name: string, value: ParamValue | undefined, shown: string) => void;
}

export function GestureButton({ module, duration, set }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button color="primary" sx={{ mt: 1 }} onClick={() => setOpen(true)}>
        Draw or record
      </Button>
      {open && (
        <GestureDialog
          name={module.label}
          points={module.params.points as readonly GesturePoint[]}
          held={module.params.interpolation === 'hold'}
          duration={duration}
          onClose={() => setOpen(false)}
          onDone={(points) => {
            setOpen(false);
            set('points', points, `${points.length} points`);
          }}
        />
      )}
    </>
  );
}
