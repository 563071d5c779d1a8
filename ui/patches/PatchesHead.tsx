'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { SiteHead } from '@/ui/parts/SiteHead';
import type { Document } from '@/wire/patches';
import { ImportButton } from './ImportButton';

interface Props {
  readonly onImported: (documents: readonly Document[]) => void;
  readonly onDeleted: () => void;
}

/** Where one is, and what is done with files and with what was deleted. */
export function PatchesHead({ onImported, onDeleted }: Props) {
  return (
    <SiteHead here="/">
      <ImportButton onImported={onImported} />
      <Button onClick={onDeleted}>
        Deleted
        <Box component="span" sx={{ display: { xs: 'none', sm: 'inline' } }}>
          &nbsp;patches
        </Box>
      </Button>
    </SiteHead>
  );
}
