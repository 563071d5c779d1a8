'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { memo } from 'react';
import { applyEdits } from '@/core';
import type { Finding } from '@/core';
import { ink } from '@/ui/theme/tokens';
import type { Edit } from './edit';

const colours = { error: ink.error, warning: ink.warning, note: ink.ink } as const;
const words = { error: 'Error', warning: 'Warning', note: 'Note' } as const;

interface Props {
  readonly findings: readonly Finding[];
  readonly edit: Edit;
  /** Sockets that are destinations: what `onOpen` can show the strip of. */
  readonly ends: string;
  readonly onOpen: (at: string) => void;
}

/** The list says the same: it need not be drawn again. */
const same = (a: Props, b: Props): boolean =>
  a.ends === b.ends && JSON.stringify(a.findings) === JSON.stringify(b.findings);

/** What is wrong, with its number and its cure. */
export const FindingsList = memo(function FindingsList({ findings, edit, onOpen }: Props) {
  return (
    <Box component="section" aria-label="Findings" sx={{ mt: 2 }}>
      <Box component="h2" sx={{ fontSize: 12, fontWeight: 700, color: ink.softInk, m: 0, mb: 0.5 }}>
        Findings
      </Box>
      {findings.length === 0 && <Box sx={{ color: ink.softInk }}>Nothing to say.</Box>}
      {findings.map((f) => (
        <Box key={`${f.code} ${f.at}`} data-finding={f.code} sx={{ borderTop: `1px solid ${ink.line}`, py: 1 }}>
          <Box sx={{ fontWeight: 700, color: colours[f.severity] }}>{`${words[f.severity]} at ${f.at}`}</Box>
          <Box sx={{ mb: 0.5 }}>{f.message}</Box>
          <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
            {f.cure && (
              <Button
                color="primary"
                onClick={() => edit(f.cure?.label ?? '', (p) => applyEdits(p, f.cure?.edits ?? []))}
              >
                {f.cure.label}
              </Button>
            )}
            <Button onClick={() => onOpen(f.at)}>Show</Button>
          </Box>
        </Box>
      ))}
    </Box>
  );
}, same);
