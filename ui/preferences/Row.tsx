import Box from '@mui/material/Box';
import type { ReactNode } from 'react';
import { ink } from '@/ui/theme/tokens';

interface Props {
  readonly title: string;
  /** What it does, under it. */
  readonly says?: string;
  readonly children: ReactNode;
}

/** One preference: its name at the left, its control at the right; on a phone below each other. */
export function Row({ title, says, children }: Props) {
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', sm: '200px minmax(0, 1fr)' },
        columnGap: 3,
        rowGap: 0.5,
        alignItems: 'center',
        py: 1,
        borderTop: `1px solid ${ink.line}`,
      }}
    >
      <Box sx={{ alignSelf: { sm: 'start' }, pt: { sm: 0.75 } }}>{title}</Box>
      <Box sx={{ minWidth: 0 }}>
        <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 1.5, minHeight: 36 }}>{children}</Box>
        {says && <Box sx={{ color: ink.softInk, fontSize: 13 }}>{says}</Box>}
      </Box>
    </Box>
  );
}
