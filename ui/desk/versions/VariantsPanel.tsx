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
    edit(`keep ${kept}`, [{ do: 'variant', name: kept, state: desk.getState().patch }]);
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
          Keep as it is now
        </Button>
      </Box>
      {full && <Box sx={{ color: ink.warning }}>{`A patch keeps ${LIMITS.variants} variants; drop one first.`}</Box>}
      {patch.variants.length === 0 && (
        <Box sx={{ color: ink.softInk }}>
          Keep the patch as it is under a name, then change it freely: the two can be compared, and single differences
          taken over.
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
          onUse={() => edit(`the desk as ${v.name}`, [{ do: 'state', state: v }])}
          onDrop={() => edit(`drop ${v.name}`, [{ do: 'variant', name: v.name, state: null }])}
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
        {count === 0 ? 'the same as the desk' : `${counted(count, 'difference')} from the desk`}
      </Box>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <Button onClick={onCompare}>Compare</Button>
        <Button onClick={onUse} disabled={count === 0}>
          Put on the desk
        </Button>
        <Button onClick={onDrop} aria-label={`Drop ${variant.name}`}>
          Drop
        </Button>
      </Box>
    </Box>
  );
}
