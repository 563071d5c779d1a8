'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useEffect, useState } from 'react';

/** What takes longer than this says how far it is, milliseconds. */
const LONG = 1000;

/** How far a long run is, and a way to end it. */
export function Running({ progress, onCancel }: { readonly progress: number; readonly onCancel: () => void }) {
  const [long, setLong] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLong(true), LONG);
    return () => clearTimeout(timer);
  }, []);
  if (!long) return null;
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, px: 2 }}>
      <LinearProgress variant="determinate" value={100 * progress} aria-label="Simulating…" sx={{ flex: 1 }} />
      <Button onClick={onCancel}>Cancel</Button>
    </Box>
  );
}
