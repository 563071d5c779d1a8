'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Link from 'next/link';
import { ink } from '@/ui/theme/tokens';

interface Props {
  readonly title: string;
  readonly says: string;
  readonly onAgain?: () => void;
}

/** A page that is not there, or failed: what happened, what is kept, and the ways back. */
export function LostPage({ title, says, onAgain }: Props) {
  return (
    <Box component="main" sx={{ maxWidth: 560, mx: 'auto', px: 2, py: 8 }}>
      <Box sx={{ fontSize: 18, fontWeight: 700 }}>Fenvo</Box>
      <Box component="h1" sx={{ fontSize: 24, mt: 3, mb: 1 }}>
        {title}
      </Box>
      <Box component="p" sx={{ color: ink.softInk, mt: 0 }}>
        {says}
      </Box>
      <Box sx={{ display: 'flex', gap: 1, mt: 3 }}>
        <Button component={Link} href="/" color="primary">
          Back to patches
        </Button>
        {onAgain && <Button onClick={onAgain}>Try again</Button>}
      </Box>
    </Box>
  );
}
