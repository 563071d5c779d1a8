'use client';
import Box from '@mui/material/Box';
import { kindNamed, paramLabel } from '@/core';
import type { Channel, PanelScale } from '@/core';

import { ink } from '@/ui/theme/tokens';
import { CommitField } from '@/ui/parts/CommitField';
import { putChannel } from './channel';
import type { ChannelProps } from './channel';
import { readPanel, readPoints, shownPanel, shownPoints } from './limits';

function withPanel(c: Channel, name: string, panel: PanelScale | null): Channel {
  const { [name]: _gone, ...rest } = c.knobs;
  return { ...c, knobs: panel ? { ...rest, [name]: panel } : rest };
}

/** What is printed around each knob: its ends, and which figure stands at which pointer position. */
export function PanelFields(props: ChannelProps) {
  const { channel: c } = props;
  const kind = kindNamed(c.modes[0].kind);
  const knobs = Object.entries(kind?.params ?? {}).filter(([, spec]) => spec.type === 'number');
  if (knobs.length === 0) return <>No knobs.</>;
  return (
    <>
      <Box sx={{ fontSize: 13, color: ink.softInk }}>
        Enter the printed range, for example 0 … 10. If the scale is uneven, add pairs of pointer position (%) and
        printed value, for example 50: 2. Where a printed value means a time or a frequency of its own, add it: 50: 5 =
        100 ms.
      </Box>
      {knobs.map(([name, spec]) => {
        const panel = c.knobs[name];
        const label = paramLabel(name, spec);
        return (
          <Box key={name} data-panel-of={name} sx={{ display: 'flex', gap: 0.75, py: 0.25, alignItems: 'flex-start' }}>
            <Box sx={{ flex: 1, minWidth: 0, pt: 0.75, overflowWrap: 'anywhere' }}>{label}</Box>
            <CommitField
              label={`Panel of ${label}`}
              placeholder="0 … 10"
              value={shownPanel(panel)}
              width={92}
              onPut={(text) => {
                const read = readPanel(text, panel);
                return typeof read === 'string' ? read : putChannel(props, (x) => withPanel(x, name, read));
              }}
            />
            <CommitField
              label={`Points of ${label}`}
              placeholder="50: 2"
              value={shownPoints(panel)}
              width={124}
              onPut={(text) => {
                const read = readPoints(text, panel ?? { scale: [0, 10] }, spec.type === 'number' ? spec.unit : '');
                return typeof read === 'string' ? read : putChannel(props, (x) => withPanel(x, name, read));
              }}
            />
          </Box>
        );
      })}
    </>
  );
}
