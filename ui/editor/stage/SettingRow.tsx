import Box from '@mui/material/Box';
import type { ReactNode } from 'react';
import { ink } from '@/ui/theme/tokens';

interface Props {
  /** As the document names it. */
  readonly param?: string;
  readonly label: string;
  readonly says?: string | undefined;
  readonly children: ReactNode;
}

/** A setting's name at the left, its field at the right. */
export function SettingRow({ param, label, says, children }: Props) {
  return (
    <Box
      data-setting={param ?? label}
      sx={{
        display: 'flex',
        justifyContent: 'space-between',
        alignItems: 'center',
        gap: 1,
        minHeight: 32,
        fontSize: 13,
      }}
    >
      <Box component="span" title={says} sx={{ color: ink.softInk }}>
        {label}
      </Box>
      {children}
    </Box>
  );
}
