'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { allKinds, kindTitle, LIMITS } from '@/core';
import type { Channel, ChannelMode } from '@/core';
import { Section } from '@/ui/parts/Section';
import { SelectField } from '@/ui/parts/SelectField';
import { DeleteIcon } from '@/ui/parts/icons';
import { ink } from '@/ui/theme/tokens';
import { CommitField } from '@/ui/parts/CommitField';
import { putChannel } from './channel';
import type { ChannelProps } from './channel';
import { plainMode, removeChannel } from './edits';
import { ModeLimits } from './ModeLimits';
import { NormalFields } from './NormalFields';
import { PanelFields } from './PanelFields';

const kinds = allKinds.filter((k) => k.electrical?.unracked !== 'always').map((k) => [k.name, k.title] as const);

/** Modes of a channel, of which one is there at least. */
const someModes = (modes: readonly ChannelMode[], before: Channel['modes']): Channel['modes'] => {
  const [first, ...more] = modes;
  return first ? [first, ...more] : before;
};

/** One channel: what it is, what it holds, what its empty sockets carry, what its panel says. */
export function ChannelEditor(props: ChannelProps & { readonly used: readonly string[] }) {
  const { rack, module: m, channel: c, used, edit } = props;
  const setMode = (index: number, mode: ChannelMode | null): string | null =>
    putChannel(props, (x) => ({
      ...x,
      modes: someModes(
        x.modes.flatMap((old, i) => (i !== index ? [old] : mode ? [mode] : [])),
        x.modes,
      ),
      ...(mode && mode.kind !== x.modes[index]?.kind && { normals: [], outputOhms: {}, inputOhms: {}, knobs: {} }),
    }));
  const name = c.label ?? c.id;
  return (
    <Box data-channel={c.id} sx={{ borderTop: `1px solid ${ink.line}`, py: 1 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <CommitField
          label={`Label of channel ${name}`}
          value={name}
          width={92}
          figures={false}
          onPut={(label) => putChannel(props, (x) => ({ ...x, label: label.slice(0, LIMITS.label) }))}
        />
        <Box sx={{ flex: 1, fontSize: 13, color: used.length > 0 ? ink.ink : ink.softInk }}>
          {used.length > 0 ? used.join(', ') : 'free'}
        </Box>
        {m.channels.length > 1 && (
          <IconButton aria-label={`Remove channel ${name}`} onClick={() => edit(removeChannel(rack, m.id, c.id))}>
            <DeleteIcon sx={{ fontSize: 18 }} />
          </IconButton>
        )}
      </Box>
      {c.modes.map((mode, i) => (
        <Box key={`${i} ${mode.kind}`} sx={{ mt: 0.75 }}>
          <Box sx={{ display: 'flex', gap: 0.5, alignItems: 'center' }}>
            <SelectField
              label={`Function of channel ${name}${c.modes.length > 1 ? `, ${i + 1}` : ''}`}
              value={mode.kind}
              options={kinds}
              onChange={(kind) => void setMode(i, plainMode(kind))}
              sx={{ flex: 1 }}
            />
            {c.modes.length > 1 && (
              <IconButton
                aria-label={`Remove this mode: ${kindTitle(mode.kind)}`}
                onClick={() => void setMode(i, null)}
              >
                <DeleteIcon sx={{ fontSize: 18 }} />
              </IconButton>
            )}
          </Box>
          <Section id={`channel limits`} title={`${kindTitle(mode.kind)}: available settings`}>
            <ModeLimits mode={mode} channel={name} onPut={(next) => setMode(i, next)} />
          </Section>
        </Box>
      ))}
      <Section id="channel normals" title="Normalling and impedance">
        <NormalFields {...props} />
      </Section>
      <Section id="channel panel" title="Panel markings">
        <PanelFields {...props} />
      </Section>
      <Button
        onClick={() =>
          void putChannel(props, (x) => ({ ...x, modes: [...x.modes, plainMode(x.modes[0].kind)] as Channel['modes'] }))
        }
      >
        Add a switchable mode
      </Button>
    </Box>
  );
}
