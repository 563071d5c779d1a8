'use client';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import type { ReactNode } from 'react';
import { ink } from '@/ui/theme/tokens';
import { PreferencesIcon } from './icons';
import { SafeLink } from './SafeLink';
import { SchemeButton } from './SchemeButton';

const SCREENS = [
  ['/', 'Patches'],
  ['/racks', 'Racks'],
  ['/practice', 'Practice'],
  ['/bench', 'Bench'],
] as const;

const headStyle = {
  display: 'flex',
  alignItems: 'center',
  // On a phone what one can do here has a row of its own.
  flexWrap: { xs: 'wrap', sm: 'nowrap' },
  columnGap: { xs: 0.5, sm: 2 },
  minHeight: 48,
  px: { xs: 1, sm: 2 },
  whiteSpace: 'nowrap',
  '& > *': { flexShrink: 0 },
  borderBottom: `1px solid ${ink.line}`,
} as const;

interface Props {
  /** The address of this screen. */
  readonly here: string;
  readonly children?: ReactNode;
}

/** The head of the screens that are not of one patch: the way between them. */
export function SiteHead({ here, children }: Props) {
  return (
    <Box component="header" data-no-print sx={headStyle}>
      <Box sx={{ fontSize: 18, fontWeight: 700 }}>Fenvo</Box>
      <Box
        component="nav"
        aria-label="Screens"
        sx={{
          display: 'flex',
          gap: { xs: 1, sm: 2 },
          alignSelf: 'stretch',
          minHeight: 47,
          fontSize: { xs: 14, sm: 'inherit' },
        }}
      >
        {SCREENS.map(([address, name]) => (
          <Box
            key={address}
            component={SafeLink}
            href={address}
            aria-current={here === address ? 'page' : undefined}
            sx={{
              display: 'flex',
              alignItems: 'center',
              color: here === address ? ink.ink : ink.softInk,
              fontWeight: here === address ? 700 : 400,
              textDecoration: 'none',
              borderBottom: `2px solid ${here === address ? ink.wanted : ink.clear}`,
            }}
          >
            {name}
          </Box>
        ))}
      </Box>
      <Box sx={{ flex: 1 }} />
      {children && (
        <Box
          sx={{
            display: 'flex',
            gap: { xs: 0.5, sm: 2 },
            order: { xs: 1, sm: 0 },
            width: { xs: '100%', sm: 'auto' },
            py: { xs: 0.75, sm: 0 },
          }}
        >
          {children}
        </Box>
      )}
      <IconButton
        component={SafeLink}
        href="/preferences"
        aria-label="Preferences"
        aria-current={here === '/preferences' ? 'page' : undefined}
      >
        <PreferencesIcon fontSize="small" />
      </IconButton>
      <SchemeButton />
    </Box>
  );
}
