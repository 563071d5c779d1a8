'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import { useEffect } from 'react';
import { useStore } from 'zustand';
import { ghost } from '@/ui/session/ghost';
import type { DeskStore } from '@/ui/session/desk';
import { ghostIn } from './ghostIn';

/** Takes a fault from the address, and says which one the dashed ranges in the strip are of. */
export function GhostBar({ desk }: { readonly desk: DeskStore }) {
  const shown = useStore(ghost, (s) => s.shown);
  useEffect(() => {
    ghost.setState({ shown: ghostIn(window.location.hash, desk.getState().patch) });
    return () => ghost.setState({ shown: null });
  }, [desk]);
  if (!shown) return null;
  const close = (): void => {
    window.history.replaceState(null, '', window.location.pathname + window.location.search);
    ghost.setState({ shown: null });
  };
  return (
    <Alert severity="info" data-ghost-bar action={<Button onClick={close}>Close</Button>} sx={{ py: 0 }}>
      {`Dashed outlines: voltages with this fault. ${shown.text}.`}
    </Alert>
  );
}
