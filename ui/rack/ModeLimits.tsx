'use client';
import Box from '@mui/material/Box';
import { kindNamed, paramLabel } from '@/core';
import type { ChannelMode, ParamSpec } from '@/core';

import { SelectField } from '@/ui/parts/SelectField';
import { CommitField } from '@/ui/parts/CommitField';
import { canLimit, howOf, shownLimit, waysFor, withLimit, withWay } from './limits';
import type { How } from './limits';

interface Props {
  readonly mode: ChannelMode;
  readonly channel: string;
  readonly onPut: (mode: ChannelMode) => string | null;
}

const WAYS: Readonly<Record<How, string>> = {
  free: 'Full range',
  fixed: 'Fixed at',
  range: 'Range',
  choices: 'Choice of',
};

const PLACEHOLDERS: Readonly<Record<How, string>> = { free: '', fixed: 'value', range: '0 … 10', choices: '1, 2' };

/** Of each setting, what the channel allows: all that its kind does, one value, a range, or some. */
export function ModeLimits({ mode, channel, onPut }: Props) {
  const kind = kindNamed(mode.kind);
  const params = Object.entries(kind?.params ?? {}).filter(([, spec]) => canLimit(spec));
  if (params.length === 0) return <>Nothing to set.</>;
  return (
    <>
      {params.map(([name, spec]) => (
        <Limit key={name} {...{ mode, channel, name, spec, onPut }} />
      ))}
    </>
  );
}

function Limit({ mode, channel, name, spec, onPut }: Props & { readonly name: string; readonly spec: ParamSpec }) {
  const how = howOf(mode, name);
  const label = paramLabel(name, spec);
  return (
    <Box data-limit-of={name} sx={{ display: 'flex', alignItems: 'flex-start', gap: 0.75, py: 0.25 }}>
      <Box sx={{ flex: 1, minWidth: 0, pt: 0.75, overflowWrap: 'anywhere' }}>{label}</Box>
      <SelectField
        label={`How channel ${channel} holds ${label}`}
        value={how}
        options={waysFor(spec).map((w) => [w, WAYS[w]] as const)}
        onChange={(next) => void onPut(withWay(mode, name, spec, next))}
        sx={{ width: 104 }}
      />
      {how === 'free' ? (
        <Box sx={{ width: 112 }} />
      ) : (
        <CommitField
          key={how}
          label={`${label} of channel ${channel}`}
          value={shownLimit(mode, name)}
          placeholder={PLACEHOLDERS[how]}
          width={112}
          onPut={(text) => {
            const next = withLimit(mode, name, spec, text);
            return typeof next === 'string' ? next : onPut(next);
          }}
        />
      )}
    </Box>
  );
}
