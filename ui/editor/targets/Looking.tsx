'use client';
import LinearProgress from '@mui/material/LinearProgress';

/** How far the search for the knobs is, 0..1; null before it said. */
export function Looking({ progress }: { readonly progress: number | null }) {
  return (
    <LinearProgress
      variant={progress === null ? 'indeterminate' : 'determinate'}
      value={100 * (progress ?? 0)}
      aria-label="Solving…"
    />
  );
}
