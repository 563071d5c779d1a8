import Box from '@mui/material/Box';
import type { ReactNode } from 'react';
import { ink } from '@/ui/theme/tokens';

interface Props {
  readonly title: string;
  /** At the right of the title: what is done with the whole group. */
  readonly action?: ReactNode;
  readonly children: ReactNode;
}

/** A group of a panel that is always open, under its heading. */
export function Group({ title, action, children }: Props) {
  return (
    <Box component="section" aria-label={title} sx={{ borderTop: `1px solid ${ink.line}`, mt: 1.25, pt: 1 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between', gap: 1, minHeight: 28 }}>
        <Box component="h3" sx={{ fontSize: 13, fontWeight: 700, m: 0 }}>
          {title}
        </Box>
        {action}
      </Box>
      {children}
    </Box>
  );
}
