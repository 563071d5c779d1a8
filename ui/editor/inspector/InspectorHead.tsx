'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { memo } from 'react';
import { useStore } from 'zustand';
import { counted } from '@/ui/parts/counted';
import { CloseIcon, UnfoldIcon } from '@/ui/parts/icons';
import { inspector, openIssues } from '@/ui/session/inspector';
import type { DeskStore } from '@/ui/session/desk';
import type { Predicted } from '@/ui/session/usePrediction';
import { ink } from '@/ui/theme/tokens';

interface Props {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
  readonly back: () => void;
}

interface BadgeProps {
  readonly error: number;
  readonly warning: number;
  readonly info: number;
  /** No simulation has told them yet. */
  readonly pending: boolean;
  readonly back: () => void;
}

const headStyle = {
  display: 'flex',
  alignItems: 'center',
  gap: 1,
  flexShrink: 0,
  minHeight: 48,
  pl: 1.75,
  pr: 0.75,
} as const;

/** The issues, counted, always in sight; and the way to let a stage go. */
export function InspectorHead({ desk, predicted, back }: Props) {
  const selected = useStore(desk, (s) => s.selected !== null);
  const count = (severity: 'error' | 'warning' | 'note'): number =>
    predicted.prediction.findings.filter((f) => f.severity === severity).length;
  return (
    <Box sx={headStyle}>
      <Badge
        error={count('error')}
        warning={count('warning')}
        info={count('note')}
        pending={predicted.full === null && predicted.strip !== null}
        back={back}
      />
      <Box sx={{ flex: 1 }} />
      {selected && (
        <IconButton
          aria-label="Clear selection"
          title="Clear selection (Esc)"
          onClick={() => desk.getState().select(null)}
        >
          <CloseIcon sx={{ fontSize: 18 }} />
        </IconButton>
      )}
    </Box>
  );
}

const Badge = memo(function Badge({ error, warning, info, pending, back }: BadgeProps) {
  const open = useStore(inspector, (s) => s.issues);
  const severe = [
    ...(error > 0 ? [counted(error, 'error')] : []),
    ...(warning > 0 ? [counted(warning, 'warning')] : []),
  ];
  const [first = info > 0 ? `${info} info` : pending ? 'Issues…' : 'No issues', ...rest] = severe;
  const more = [...rest, ...(severe.length > 0 && info > 0 ? [`${info} info`] : [])].join(', ');
  const colour = error > 0 ? ink.error : warning > 0 ? ink.warning : ink.softInk;
  return (
    <Button
      aria-expanded={open}
      aria-controls="inspector-panel"
      aria-label={`Issues: ${[first, more].filter(Boolean).join(', ')}`}
      onClick={() => (back(), openIssues(!open))}
      endIcon={<UnfoldIcon sx={{ fontSize: 18, transform: open ? 'rotate(180deg)' : 'none' }} />}
      sx={{ color: colour, borderColor: severe.length > 0 ? colour : undefined, fontWeight: 700 }}
    >
      {first}
      {more && (
        <Box component="span" sx={{ ml: 1, fontWeight: 400, color: ink.softInk }}>
          {more}
        </Box>
      )}
    </Button>
  );
});
