'use client';
import Box from '@mui/material/Box';
import Tab from '@mui/material/Tab';
import Tabs from '@mui/material/Tabs';
import { useSyncExternalStore } from 'react';
import { ink } from '@/ui/theme/tokens';

interface Props<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly tabs: readonly (readonly [T, string])[];
  readonly onChange: (value: T) => void;
}

const HEIGHT = 38;
const never = (): (() => void) => () => undefined;

/** Tabs of a screen; more than there is room for scroll. Their styles are the browser's to set: a server sends none. */
export function TabRow<T extends string>({ label, value, tabs, onChange }: Props<T>) {
  const here = useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
  return (
    <Box sx={{ minHeight: HEIGHT, borderBottom: `1px solid ${ink.line}` }}>
      {here && (
        <Tabs
          value={value}
          onChange={(_, next: T) => onChange(next)}
          variant="scrollable"
          scrollButtons="auto"
          allowScrollButtonsMobile
          aria-label={label}
          sx={{ minHeight: HEIGHT }}
        >
          {tabs.map(([name, title]) => (
            <Tab key={name} value={name} label={title} sx={{ minWidth: 0, px: 1.5 }} />
          ))}
        </Tabs>
      )}
    </Box>
  );
}
