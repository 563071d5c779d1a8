'use client';
import Box from '@mui/material/Box';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { headingStyle } from '@/ui/theme/tokens';
import { SelectField } from '@/ui/parts/SelectField';
import type { ReactNode } from 'react';
import { TriggerFields } from './TriggerFields';
import type { Trigger } from './TriggerFields';
import type { ShownIn, Trace } from './view';

export type Way = 'traces' | 'levels' | 'xy' | 'spectrum';

const WAYS: readonly (readonly [Way, string])[] = [
  ['traces', 'Traces'],
  ['levels', 'Levels'],
  ['xy', 'XY'],
  ['spectrum', 'Spectrum'],
];

const UNITS: readonly (readonly [ShownIn, string])[] = [
  ['volts', 'volts'],
  ['figure', 'Destination unit'],
  ['dB', 'dB (0 dB = 5 V)'],
  ['level', 'Level (RMS, 50 ms)'],
];

interface Props {
  readonly way: Way;
  readonly onWay: (way: Way) => void;
  readonly shownIn: ShownIn;
  readonly onShownIn: (shownIn: ShownIn) => void;
  readonly traces: readonly Trace[];
  readonly sampleRate: number;
  readonly trigger: Trigger | null;
  readonly onTrigger: (trigger: Trigger | null) => void;
  /** At the right end. */
  readonly children: ReactNode;
}

/** What the scope shows, and how. */
export function ScopeBar({ way, onWay, shownIn, onShownIn, children, ...trigger }: Props) {
  return (
    <Box sx={{ display: 'flex', columnGap: 1, rowGap: 0.5, flexWrap: 'wrap', alignItems: 'center', fontSize: 13 }}>
      <Box component="h2" sx={headingStyle}>
        Scope
      </Box>
      <ToggleButtonGroup
        exclusive
        value={way}
        aria-label="View"
        onChange={(_, next: Way | null) => next && onWay(next)}
      >
        {WAYS.map(([key, text]) => (
          <ToggleButton key={key} value={key} data-way={key}>
            {text}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {way === 'traces' && (
        <>
          <SelectField label="Shown in" value={shownIn} options={UNITS} onChange={onShownIn} />
          <TriggerFields {...trigger} />
        </>
      )}
      <Box sx={{ flex: 1 }} />
      {children}
    </Box>
  );
}
