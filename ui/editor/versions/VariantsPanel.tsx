'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { useStore } from 'zustand';
import { applyEdits, differencesOf, LIMITS } from '@/core';
import type { Variant } from '@/core';
import { counted } from '@/ui/parts/counted';
import { TextInput } from '@/ui/parts/TextInput';
import type { DeskStore } from '@/ui/session/desk';
import { ink } from '@/ui/theme/tokens';
import type { Scene } from '@/ui/session/scene';
import { PanelHead } from './PanelHead';

interface Props {
  readonly desk: DeskStore;
  readonly onClose: () => void;
  readonly onCompare: (scene: Scene) => void;
}

/** States of the patch that are kept under a name. */
export function VariantsPanel({ desk, onClose, onCompare }: Props) {
  const patch = useStore(desk, (s) => s.patch);
  const { edit } = desk.getState();
  const [name, setName] = useState('');
  const free = (): string => {
    for (let n = patch.variants.length + 1; ; n++) {
      if (!patch.variants.some((v) => v.name === `Variant ${n}`)) return `Variant ${n}`;
    }
  };
  const keep = (): void => {
    const kept = name.trim() || free();
    edit(`Save variant ${kept}`, [{ do: 'variant', name: kept, state: desk.getState().patch }]);
    setName('');
  };
  const full = patch.variants.length >= LIMITS.variants;
  return (
    <Box component="section" aria-label="Variants">
      <PanelHead title="Variants" onClose={onClose} />
      <Box
        component="form"
        sx={{ display: 'flex', gap: 1, mb: 1 }}
        onSubmit={(e) => {
          e.preventDefault();
          keep();
        }}
      >
        <TextInput
          label="Name of the variant"
          placeholder={free()}
          longest={LIMITS.label}
          value={name}
          onChange={setName}
          sx={{ flex: 1 }}
        />
        <Button type="submit" color="primary" disabled={full}>
          Save variant
        </Button>
      </Box>
      {full && (
        <Box
          sx={{ color: ink.warning }}
        >{`This patch already has ${LIMITS.variants} variants, the maximum. Delete one first.`}</Box>
      )}
      {patch.variants.length === 0 && (
        <Box sx={{ color: ink.softInk }}>
          Save the current state under a name, then change the patch freely. You can compare the two and apply single
          differences.
        </Box>
      )}
      {patch.variants.map((v) => (
        <VariantRow
          key={v.name}
          variant={v}
          count={differencesOf(patch, v).length}
          onCompare={() =>
            onCompare({ show: 'compare', name: v.name, patch: applyEdits(patch, [{ do: 'state', state: v }]) })
          }
          onUse={() => edit(`Load ${v.name}`, [{ do: 'state', state: v }])}
          onDrop={() => edit(`Delete variant ${v.name}`, [{ do: 'variant', name: v.name, state: null }])}
        />
      ))}
    </Box>
  );
}

interface RowProps {
  readonly variant: Variant;
  readonly count: number;
  readonly onCompare: () => void;
  readonly onUse: () => void;
  readonly onDrop: () => void;
}

function VariantRow({ variant, count, onCompare, onUse, onDrop }: RowProps) {
  return (
    <Box data-variant={variant.name} sx={{ borderTop: `1px solid ${ink.line}`, py: 1 }}>
      <Box sx={{ fontWeight: 700 }}>{variant.name}</Box>
      <Box sx={{ fontSize: 13, color: ink.softInk, mb: 0.5 }}>
        {count === 0 ? 'Same as current' : `${counted(count, 'difference')} from current`}
      </Box>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <Button onClick={onCompare}>Compare</Button>
        <Button onClick={onUse} disabled={count === 0}>
          Load
        </Button>
        <Button onClick={onDrop} aria-label={`Delete ${variant.name}`}>
          Delete
        </Button>
      </Box>
    </Box>
  );
}
