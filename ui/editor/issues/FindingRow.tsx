'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { applyEdits, explain, issueTitle } from '@/core';
import type { Finding } from '@/core';
import type { DeskStore } from '@/ui/session/desk';
import { ink } from '@/ui/theme/tokens';
import { ApplyOrPreview } from '../preview/ApplyOrPreview';
import { usePreview } from '../preview/usePreview';
import { DismissForm } from './DismissForm';

const colours = { error: ink.error, warning: ink.warning, note: ink.ink } as const;
const words = { error: 'Error', warning: 'Warning', note: 'Info' } as const;

interface Props {
  readonly desk: DeskStore;
  readonly finding: Finding;
  readonly place: string;
  readonly onOpen: (at: string) => void;
}

/** One issue: what, where, why, and its fix. */
export function FindingRow({ desk, finding: f, place, onOpen }: Props) {
  const [open, setOpen] = useState<'why' | 'dismiss' | null>(null);
  const toggle = (what: 'why' | 'dismiss'): void => setOpen(open === what ? null : what);
  const { edit } = desk.getState();
  return (
    <Box data-finding={f.code} data-at={f.at} sx={{ borderTop: `1px solid ${ink.line}`, py: 1 }}>
      <Box sx={{ fontWeight: 700, color: colours[f.severity] }}>{`${words[f.severity]}: ${issueTitle(f.code)}`}</Box>
      <Box sx={{ fontSize: 13, color: ink.softInk }}>{place}</Box>
      <Box sx={{ mb: 0.75 }}>{f.message}</Box>
      {open === 'why' && <Box sx={{ mb: 0.75, fontSize: 13, color: ink.softInk }}>{explain(f.code)}</Box>}
      <Box sx={{ display: 'flex', gap: 0.75, flexWrap: 'wrap' }}>
        <Button onClick={() => onOpen(f.at)}>Show</Button>
        <Button aria-expanded={open === 'why'} onClick={() => toggle('why')}>
          Explain
        </Button>
        <Button aria-expanded={open === 'dismiss'} onClick={() => toggle('dismiss')}>
          Dismiss
        </Button>
      </Box>
      {/* Fixes are found after the issues: what is there already stays where it is. */}
      {f.cure && <Fix desk={desk} cure={f.cure} />}
      {open === 'dismiss' && (
        <DismissForm
          onKeep={(reason) =>
            edit(`Dismiss “${issueTitle(f.code)}”`, [{ do: 'dismiss', code: f.code, at: f.at, reason }])
          }
        />
      )}
    </Box>
  );
}

function Fix({ desk, cure }: { readonly desk: DeskStore; readonly cure: NonNullable<Finding['cure']> }) {
  const preview = usePreview(() => ({ patch: applyEdits(desk.getState().patch, cure.edits) }));
  const apply = (): void => desk.getState().edit(cure.label, cure.edits);
  return <ApplyOrPreview preview={preview} label={cure.label} onApply={apply} />;
}
