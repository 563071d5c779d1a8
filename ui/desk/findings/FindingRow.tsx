'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { explain, issueTitle } from '@/core';
import type { Finding } from '@/core';
import type { EditDesk } from '@/ui/session/edit';
import { ink } from '@/ui/theme/tokens';
import { DismissForm } from './DismissForm';

const colours = { error: ink.error, warning: ink.warning, note: ink.ink } as const;
const words = { error: 'Error', warning: 'Warning', note: 'Info' } as const;

const actions = { display: 'flex', gap: 0.75, flexWrap: 'wrap' } as const;

interface Props {
  readonly finding: Finding;
  readonly place: string;
  readonly edit: EditDesk;
  readonly onOpen: (at: string) => void;
  /** Shows in the strip what a cure would do; null ends it. */
  readonly onPreview: (finding: Finding | null) => void;
}

/** One finding: what, where, why, and what is done about it. */
export function FindingRow({ finding: f, place, edit, onOpen, onPreview }: Props) {
  const [open, setOpen] = useState<'why' | 'dismiss' | null>(null);
  const [looking, setLooking] = useState(false);
  const toggle = (what: 'why' | 'dismiss'): void => setOpen(open === what ? null : what);
  const look = (on: boolean): void => {
    setLooking(on);
    onPreview(on ? f : null);
  };
  const cure = (): void => {
    look(false);
    edit(f.cure?.label ?? '', f.cure?.edits ?? []);
  };
  return (
    <Box data-finding={f.code} data-at={f.at} sx={{ borderTop: `1px solid ${ink.line}`, py: 1 }}>
      <Box sx={{ fontWeight: 700, color: colours[f.severity] }}>{`${words[f.severity]} at ${place}`}</Box>
      <Box sx={{ mb: 0.75 }}>{f.message}</Box>
      {open === 'why' && <Box sx={{ mb: 0.75, fontSize: 13, color: ink.softInk }}>{explain(f.code)}</Box>}
      <Box sx={actions}>
        <Button onClick={() => onOpen(f.at)}>Show</Button>
        <Button aria-expanded={open === 'why'} onClick={() => toggle('why')}>
          Explain
        </Button>
        <Button aria-expanded={open === 'dismiss'} onClick={() => toggle('dismiss')}>
          Dismiss
        </Button>
      </Box>
      {/* Cures are found after the findings: what is there already stays where it is. */}
      {f.cure && (
        <Box sx={{ ...actions, mt: 0.75 }}>
          <Button color="primary" onClick={cure}>
            {f.cure.label}
          </Button>
          <Button aria-pressed={looking} onClick={() => look(!looking)}>
            {looking ? 'Stop preview' : 'Preview'}
          </Button>
        </Box>
      )}
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
