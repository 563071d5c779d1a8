import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import type { ReactNode } from 'react';
import { SiteHead } from '@/ui/parts/SiteHead';
import { ink } from '@/ui/theme/tokens';

interface Props {
  /** Null until it is there. */
  readonly title: string | null;
  /** Beside the title. */
  readonly says: string;
  readonly waiting: string;
  readonly error: Error | null;
  readonly children: ReactNode;
}

/** A document of the bench, to read at the rack or to print. */
export function PaperPage({ title, says, waiting, error, children }: Props) {
  return (
    <Box component="main" sx={{ maxWidth: 860, mx: 'auto', pb: 8 }}>
      <SiteHead here="/bench" />
      <Box sx={{ px: 2 }}>
        {error && (
          <Alert severity="error" sx={{ mt: 2 }}>
            {error.message}
          </Alert>
        )}
        {title === null && !error && <LinearProgress aria-label={waiting} sx={{ mt: 2 }} />}
        {title !== null && (
          <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'baseline', gap: 1, my: 1.5 }}>
            <Box component="h1" sx={{ fontSize: 20, m: 0 }}>
              {title}
            </Box>
            <Box sx={{ color: ink.softInk }}>{says}</Box>
            <Box sx={{ flex: 1 }} />
            <Button data-no-print onClick={() => window.print()}>
              Print
            </Button>
          </Box>
        )}
        {children}
      </Box>
    </Box>
  );
}
